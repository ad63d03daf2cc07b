<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Bench\Targets;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\OneAtATime;
use VineShelf\Rungs\Rows;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;

/** A rung for rows, as a change of a desk's settings: objects that are locked are left alone, siblings shown one at a time are hidden. */
final readonly class RungsOf
{
    /** Objects that were left alone. */
    public int $locked;

    private Targets $targets;

    private Rows $rows;

    private Organizers $organizers;

    private string $what;

    /** @param Rung|null $rung null to set nothing */
    public function __construct(Bench $bench, Targets $targets, private ?Rung $rung)
    {
        $held = $targets->rows->and($bench->inEffect()->locked());
        $this->locked = $held->count();
        $this->targets = $targets->without($held);
        $this->what = $this->targets->inWords($bench);
        $this->rows = $this->targets->forRungs($bench);
        $this->organizers = $bench->organizers();
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

    /** What is said of it, for example "Glazing: Ghost." */
    public function said(): string
    {
        return "$this->what: ".($this->rung?->label() ?? 'nothing set').'.';
    }

    public function on(Settings $desk): Settings
    {
        $set = $this->rows->set($desk, $this->rung, $this->organizers);

        return OneAtATime::shown($set, $this->organizers, $this->targets->layers, $this->targets->tags, $this->targets->folders);
    }
}
