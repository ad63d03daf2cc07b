<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Why\Cause;
use VineShelf\Why\Holder;
use VineShelf\Why\Why;

/** Puts a why into words. */
final class WhyText
{
    /** @var array<int, string> by object number */
    private array $names = [];

    public function __construct(private readonly Bench $bench, private readonly bool $ofPictures = false) {}

    /**
     * Reads the names of many objects at once.
     *
     * @param list<int> $numbers
     */
    public function know(array $numbers): void
    {
        $unknown = array_values(array_unique(array_diff($numbers, array_keys($this->names))));
        if ($unknown === []) {
            return;
        }
        $names = DB::table('objects')->where('project_id', $this->bench->project->id)->whereIn('no', $unknown)->pluck('name', 'no');
        foreach ($unknown as $number) {
            $this->names[$number] = is_string($names[$number] ?? null) ? $names[$number] : '';
        }
    }

    public function name(int $row): string
    {
        $number = $this->bench->scene()->number($row);
        $this->know([$number]);

        return $this->names[$number] !== '' ? $this->names[$number] : 'Unnamed '.$this->bench->scene()->kind($row)->label();
    }

    /** "Seat 12 is a ghost because Site is". */
    public function sentence(int $row, Why $why): string
    {
        $cause = $why->deciding();
        $name = $this->name($row);
        if ($this->ofPictures) {
            return "$name {$why->rung->state()} in pictures".($cause === null ? '' : " because {$this->because($cause)}");
        }
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

        if ($this->ofPictures) {
            return 'Pictures '.(($view = $this->bench->outputs()->view()) === null ? 'of no view.' : "of view $view->name.");
        }

        return $own.($why->lock === Lock::Open ? 'It is open: it can be picked and changed.' : 'It '.$why->lock->state().'.');
    }

    /** The end of a sentence: "layer 20 Roof is". */
    public function because(Cause $cause): string
    {
        if ($this->ofPictures) {
            return $this->origin($cause->what, $cause->number, $this->subject($cause));
        }

        return $cause->what === 'isolation' ? 'something else is isolated' : $this->subject($cause).' is';
    }

    /** What a button says that ends it. */
    public function mend(Cause|Holder $of): string
    {
        return ['isolation' => 'End the isolation', 'ceiling' => 'Lift it'][$of->what] ?? 'Raise to Full';
    }

    /** Where what holds something down in pictures comes from, as {@see \App\Bench\Outputs::origin()} says; "" for several at once. */
    public function originOf(Cause|Holder $of): string
    {
        return in_array($of->what, ['layer', 'tag', 'folder', 'object'], true)
            ? $this->bench->outputs()->origin($of->what, $of->number)
            : '';
    }

    /** What a rung means for a light. */
    public function light(bool $inPictures): string
    {
        return $inPictures
            ? 'A light that is hidden in pictures is left out of them and of what is exported; at any other rung it is in.'
            : 'On the desk the rung of a light is only for its mark; whether it shines is said by what pictures show.';
    }

    /** Who says so of what holds something down in pictures. */
    private function origin(string $what, int $number, string $subject): string
    {
        $outputs = $this->bench->outputs();
        $view = $outputs->view()->name ?? '';

        return match ($outputs->origin($what, $number)) {
            'never' => "$subject is never in pictures".(($note = $this->note($what, $number)) === '' ? '' : " ($note)"),
            'own' => "view $view says so of $subject",
            'project' => "$subject is set so for pictures",
            default => "view $view keeps $subject so",
        };
    }

    /** Why something is never in pictures, as somebody noted. */
    private function note(string $what, int $number): string
    {
        $set = fn (): ?string => $this->bench
            ->organizers()
            ->own->at($this->bench->scene(), $this->bench->scene()->row($number), OwnValue::OUTPUT);

        return match ($what) {
            'layer' => $this->bench->layers()->get($number)->outputNote,
            'tag' => $this->bench->tags()->get($number)->outputNote,
            'folder' => $this->bench->tags()->folder($number)->outputNote,
            default => OutputSettings::note($set() ?? ''),
        };
    }

    /** For example "layer Glazing", "the folder Phases". */
    public function organizer(string $what, int $number): string
    {
        return match ($what) {
            'layer' => 'layer '.$this->bench->layers()->get($number)->name,
            'tag' => 'tag '.$this->bench->tags()->get($number)->name,
            default => 'the folder '.$this->bench->tags()->folder($number)->name,
        };
    }

    /** What holds objects of an organizer, in words. */
    public function holder(Holder $holder): string
    {
        return match ($holder->what) {
            'isolation' => 'Something else is isolated',
            'ceiling' => 'The ceiling of the desk',
            'own' => 'Settings of the objects themselves',
            'group' => 'Settings of groups above them',
            'filed' => 'What is filed right under '.$this->organizer('layer', $holder->number),
            default => ucfirst($this->organizer($holder->what, $holder->number)),
        };
    }

    /** The same within a sentence. */
    public function holds(Holder $holder): string
    {
        return match ($holder->what) {
            'isolation' => 'the isolation of something else',
            'ceiling' => 'the ceiling of the desk',
            'own' => 'their own settings',
            'group' => 'groups above them',
            default => lcfirst($this->holder($holder)),
        };
    }

    public function subject(Cause $cause): string
    {
        if ($cause->what === 'isolation') {
            return 'something else is isolated';
        }
        if ($cause->what === 'ceiling') {
            return 'the ceiling of the desk';
        }
        if ($cause->what === 'filed') {
            return 'what is filed right under '.$this->organizer('layer', $cause->number);
        }
        if (in_array($cause->what, ['layer', 'tag', 'folder'], true)) {
            return $this->organizer($cause->what, $cause->number);
        }

        return $cause->own
            ? ($this->ofPictures
                ? 'it'
                : 'its own setting')
            : "the group {$this->name($this->bench->scene()->row($cause->number))}";
    }
}
