<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Ledger\Row;
use VineShelf\Rungs\Rung;
use VineShelf\Why\Why;

/** The sentence that stands behind a rung mark: what is in effect, and what holds it down. */
final class RungTitle
{
    public static function of(Bench $bench, Row $row): string
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

        return "$name {$row->inEffect->state()} because ".self::holder($bench, $row).". Its own setting is {$row->own->label()}.";
    }

    /** What holds a row down, in words. */
    public static function holder(Bench $bench, Row $row): string
    {
        if ($bench->isolation()->isOn() && ! $row->isObject()) {
            return 'something else is isolated';
        }
        if ($row->isLayer()) {
            foreach ($bench->layers()->chain($row->number()) as $layer) {
                if ($layer->number !== $row->number() && ($bench->settings()->layer($layer->number) ?? Rung::Full) === $row->inEffect) {
                    return "layer $layer->name is";
                }
            }

            return 'something above its objects is';
        }
        $why = Why::of(
            $bench->scene()->row($row->number()),
            $bench->scene(),
            $bench->layers(),
            $bench->settings(),
            $bench->inEffect(),
            $bench->isolation(),
        );
        $cause = $why->deciding();

        return $cause === null ? 'something above it is' : (new WhyText($bench))->because($cause);
    }
}
