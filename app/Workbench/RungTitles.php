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

    /** @param list<Row> $rows */
    public function __construct(private readonly Bench $bench, array $rows)
    {
        $this->text = new WhyText($bench);
        foreach ($rows as $row) {
            if ($row->isObject() && $row->isHeld() && ! $row->mixed) {
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
        if ($row->mixed) {
            return "$name holds objects at different rungs.".($row->isLayer() ? " Its own setting is {$row->own->label()}." : '');
        }
        if (! $row->isLayer() && ! $row->isObject()) {
            return "Everything of $name {$row->inEffect->state()}.";
        }
        if (! $row->isHeld()) {
            return "$name {$row->inEffect->state()}".($row->own === Rung::Full ? '' : ' by its own setting').'.';
        }

        return "$name {$row->inEffect->state()} because {$this->holder($row)}. Its own setting is {$row->own->label()}.";
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
        if ($this->bench->isolation()->isOn()) {
            return 'something else is isolated';
        }
        foreach ($this->bench->layers()->chain($row->number()) as $layer) {
            $own = $this->bench->settings()->layer($layer->number) ?? Rung::Full;
            if ($layer->number !== $row->number() && $own === $row->inEffect) {
                return "layer $layer->name is";
            }
        }

        return 'something above its objects is';
    }

    private function why(Row $row): Why
    {
        return Why::of(
            $this->bench->scene()->row($row->number()),
            $this->bench->scene(),
            $this->bench->organizers(),
            $this->bench->settings(),
            $this->bench->inEffect(),
            $this->bench->isolation(),
        );
    }
}
