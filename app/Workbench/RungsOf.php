<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\Targets;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\OneAtATime;
use VineShelf\Rungs\Rows;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Rungs\Turn;
use VineShelf\Scene\Levels;

/**
 * A rung for rows, or what a click on their mark does, as a change of a desk's settings: objects that are locked are left alone, siblings
 * shown one at a time are hidden.
 */
final readonly class RungsOf
{
    /** Objects that were left alone. */
    public int $locked;

    private Targets $targets;

    private Rows $rows;

    private Organizers $organizers;

    private string $what;

    /** @param Rung|Turn|null $rung null to set nothing */
    public function __construct(Bench $bench, Targets $targets, private Rung|Turn|null $rung)
    {
        $held = $targets->rows->and($bench->inEffect()->locked());
        $this->locked = $held->count();
        $this->targets = $targets->without($held);
        $this->what = $this->targets->inWords($bench);
        $this->rows = $this->targets->forRungs($bench);
        $this->organizers = $bench->organizers();
    }

    /**
     * What still holds those that were raised, once they were; null where nothing does, or where nothing was to be raised.
     *
     * @param Bench  $bench  as it is now
     * @param Levels $before rungs in effect before
     */
    public function held(Bench $bench, Levels $before): ?HeldDown
    {
        if ($this->rung === null || $this->rung === Turn::Hide || $this->rung === Rung::Hidden) {
            return null;
        }
        $rows = $this->targets->reached($bench);
        if ($this->rung === Turn::Back) {
            return HeldDown::below($bench, $bench->side(false), $rows, Rung::Box);
        }
        $isRaise = $this->rung === Rung::Full || $rows->and($before->atLeast($this->rung->value))->isEmpty();

        return $isRaise ? HeldDown::below($bench, $bench->side(false), $rows, $this->rung) : null;
    }

    public function isEmpty(): bool
    {
        return $this->targets->isEmpty();
    }

    /** What the step is called, for example "Ghost: Glazing". */
    public function name(): string
    {
        return ($this->rung?->label() ?? 'Nothing set').": $this->what";
    }

    /** What is said of it, for example "Glazing: Ghost." @param Bench $bench as it is now */
    public function said(Bench $bench): string
    {
        $said = "$this->what: ".($this->rung?->label() ?? 'nothing set').'.';
        if ($this->rung === null || $this->rung === Turn::Hide || $this->rung === Rung::Hidden) {
            return $said;
        }
        $rows = $this->rows;
        $stays = array_map(
            static fn (string $key): string => Organizer::named($bench, strtr($key, 'M', 'T'))->name,
            OneAtATime::staying($bench->settings(), $this->organizers, $rows->layers, $rows->tags, $rows->folders),
        );

        $stay = count($stays) === 1 ? 'stays' : 'stay';

        return $stays === [] ? $said : "$said One at a time: of them ".implode(' and ', $stays)." $stay.";
    }

    /** @param Settings $known what hidden rows had before, as {@see \VineShelf\Rungs\BeforeHiding} has it */
    public function on(Settings $desk, Settings $known): Settings
    {
        return $this->rows->turned($desk, $this->rung, $this->organizers, $known);
    }
}
