<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Ledger\Row;
use VineShelf\Rungs\Rung;
use VineShelf\Why\Cause;
use VineShelf\Why\Why;

/** The sentences that stand behind the rung marks of a window of the ledger: what is in effect, and what holds it down. */
final class RungTitles
{
    private readonly WhyText $text;

    /** @var array<string, Cause|null> what decides for an object that is held down, by row key */
    private array $deciding = [];

    /**
     * @param list<Row> $rows
     * @param bool      $ofPictures what pictures show instead of what the desk does
     */
    public function __construct(private readonly Bench $bench, array $rows, private readonly bool $ofPictures)
    {
        $this->text = new WhyText($bench, $ofPictures);
        foreach ($rows as $row) {
            if ($row->isObject() && $this->isHeld($row)) {
                $this->deciding[$row->key] = $this->why($row)->deciding();
            }
        }
        // The groups that hold rows down are asked for their names together.
        $groups = array_filter($this->deciding, static fn (?Cause $cause): bool => $cause?->what === 'object');
        $this->text->know(array_values(array_map(static fn (Cause $cause): int => $cause->number, $groups)));
    }

    public function of(Row $row): string
    {
        $name = $row->name === '' ? 'This '.$row->kind : $row->name;
        $in = $this->ofPictures ? ' in pictures' : '';
        $effect = $this->inEffect($row);
        if ($this->ofPictures ? $row->pictures?->mixed : $row->mixed) {
            return "$name holds objects at different rungs$in.".($row->isSetItself() ? " {$this->own($row)}" : '');
        }
        if (! $row->isLayer() && ! $row->isObject()) {
            return "Everything of $name {$effect->state()}$in.".($row->isSetItself() ? " {$this->own($row)}" : '');
        }
        if (! $this->isHeld($row)) {
            $isOwn = $this->ofPictures ? $row->pictures?->own !== null : $row->own !== Rung::Full;

            return "$name {$effect->state()}$in".
                ($isOwn ? ' by its own setting' : '').
                '.'.
                ($this->ofPictures ? " {$this->own($row)}" : '');
        }

        return "$name {$effect->state()}$in because {$this->holder($row)}. {$this->own($row)}";
    }

    private function inEffect(Row $row): Rung
    {
        return $this->ofPictures ? $row->pictures->inEffect ?? Rung::Full : $row->inEffect;
    }

    private function isHeld(Row $row): bool
    {
        return $this->ofPictures
            ? $row->pictures !== null && ! $row->pictures->mixed && $row->pictures->inEffect->value < $row->pictures->ownRung()->value
            : $row->isHeld() && ! $row->mixed;
    }

    /** What is set for the row itself, a sentence. */
    private function own(Row $row): string
    {
        if (! $this->ofPictures) {
            return "Its own setting is {$row->own->label()}.";
        }
        $note = ($reason = $row->pictures?->reason() ?? '') === '' ? '' : ": $reason";

        return $row->pictures?->own === null ? 'Nothing is set for pictures.' : "Set for pictures: {$row->pictures->own->label()}$note.";
    }

    /** What holds a row down, in words. */
    private function holder(Row $row): string
    {
        if ($row->isLayer()) {
            return $this->holderOfLayer($row);
        }
        $cause = $this->deciding[$row->key] ?? null;

        return $cause === null ? 'something above it is' : $this->text->because($cause);
    }

    private function holderOfLayer(Row $row): string
    {
        $side = $this->bench->side($this->ofPictures);
        if ($side->isolation->isOn()) {
            return 'something else is isolated';
        }
        if (! $this->ofPictures && $side->settings->ceiling === $this->inEffect($row)->value) {
            return 'the ceiling of the desk is';
        }
        foreach ($this->bench->layers()->chain($row->number()) as $layer) {
            $own = $side->settings->layer($layer->number) ?? Rung::Full;
            if ($own === $this->inEffect($row) && ($this->ofPictures || $layer->number !== $row->number())) {
                return $this->text->because(new Cause('layer', $layer->number, $layer->number === $row->number(), $own, null));
            }
        }

        return 'something above its objects is';
    }

    private function why(Row $row): Why
    {
        return $this->bench->side($this->ofPictures)->why($this->bench, $this->bench->scene()->row($row->number()));
    }
}
