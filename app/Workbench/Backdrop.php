<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Bench\Targets;
use App\Changes\SetLocks;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;

/** Ghost on the desk and guarded in the project, as one action. What is locked stays locked. */
final readonly class Backdrop
{
    public string $what;

    /** Objects that keep their rung because they are locked. */
    public int $locked;

    public function __construct(private Bench $bench, private Targets $targets)
    {
        $this->what = $targets->inWords($bench);
        $this->locked = $targets->rows->and($bench->inEffect()->locked())->count();
    }

    /** Whether all of it is one: set to Ghost itself, and not open. */
    public function isOn(): bool
    {
        $settings = $this->bench->settings();
        foreach ($this->targets->layers as $layer) {
            if ($settings->layer($layer) !== Rung::Ghost || $this->bench->layers()->get($layer)->lock === Lock::Open) {
                return false;
            }
        }
        foreach ($this->targets->tags as $tag) {
            if ($settings->tag($tag) !== Rung::Ghost || $this->bench->tags()->get($tag)->lock === Lock::Open) {
                return false;
            }
        }
        foreach ($this->targets->folders as $folder) {
            if ($settings->folder($folder) !== Rung::Ghost || $this->bench->tags()->folder($folder)->lock === Lock::Open) {
                return false;
            }
        }
        $scene = $this->bench->scene();
        $ghosts = isset($settings->objects[Rung::Ghost->value]) ? $scene->rowBits($settings->objects[Rung::Ghost->value]) : null;
        $rows = $this->targets->rows;

        return $rows->isEmpty() ||
            ($ghosts !== null &&
                $rows->without($ghosts)->isEmpty() &&
                $rows->and($scene->locks()->rowsOf([Lock::Open->value => true]))->isEmpty());
    }

    /** The locks that it takes: what is open is guarded, or what is guarded opened. */
    public function locks(bool $on): SetLocks
    {
        [$from, $to] = $on ? [Lock::Open, Lock::Guarded] : [Lock::Guarded, Lock::Open];
        $bench = $this->bench;
        $are = static fn (array $numbers, \Closure $lock): array => array_values(
            array_filter($numbers, static fn (int $number): bool => $lock($number) === $from),
        );

        return new SetLocks(
            $bench,
            Targets::of(
                $are($this->targets->layers, static fn (int $layer): Lock => $bench->layers()->get($layer)->lock),
                $this->targets->rows->and(
                    $bench
                        ->scene()
                        ->locks()
                        ->rowsOf([$from->value => true]),
                ),
                $are($this->targets->tags, static fn (int $tag): Lock => $bench->tags()->get($tag)->lock),
                $are($this->targets->folders, static fn (int $folder): Lock => $bench->tags()->folder($folder)->lock),
            ),
            $to,
        );
    }

    /** The rungs that it takes on the desk. @return bool whether any changed */
    public function rungs(Bench $bench, bool $on): bool
    {
        $rungs = new RungsOf($bench, $this->targets, $on ? Rung::Ghost : null);

        return DeskSteps::take($bench, ($on ? 'Backdrop: ' : 'No backdrop: ').$this->what, $rungs->on(...));
    }
}
