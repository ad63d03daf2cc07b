<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;
use VineShelf\Why\Cause;
use VineShelf\Why\Why;

/** Puts a why into words. */
final readonly class WhyText
{
    public function __construct(private Bench $bench) {}

    public function name(int $row): string
    {
        $name = DB::table('objects')
            ->where('project_id', $this->bench->project->id)
            ->where('no', $this->bench->scene()->number($row))
            ->value('name');

        return is_string($name) && $name !== '' ? $name : 'Unnamed '.$this->bench->scene()->kind($row)->label();
    }

    /** "Seat 12 is a ghost because Site is". */
    public function sentence(int $row, Why $why): string
    {
        $cause = $why->deciding();
        $name = $this->name($row);
        if ($cause === null) {
            return "$name {$why->rung->state()}".($why->isLifted ? ' because it is isolated' : '');
        }

        return $cause->own
            ? "$name {$why->rung->state()} by its own setting"
            : "$name {$why->rung->state()} because {$this->because($cause)}";
    }

    /** "Its own setting is Full." or what locks it. */
    public function second(Why $why): string
    {
        $own = $why->own === $why->rung ? '' : "Its own setting is {$why->own->label()}. ";

        return $own.($why->lock === Lock::Open ? 'It is open: it can be picked and changed.' : 'It '.$why->lock->state().'.');
    }

    /** The end of a sentence: "layer 20 Roof is". */
    public function because(Cause $cause): string
    {
        return $cause->what === 'isolation' ? 'something else is isolated' : $this->subject($cause).' is';
    }

    public function subject(Cause $cause): string
    {
        if ($cause->what === 'isolation') {
            return 'something else is isolated';
        }
        if ($cause->what === 'layer') {
            return 'layer '.$this->bench->layers()->get($cause->number)->name;
        }

        return $cause->own ? 'its own setting' : "the group {$this->name($this->bench->scene()->row($cause->number))}";
    }
}
