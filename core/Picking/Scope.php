<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Facts\Facts;
use VineShelf\Picking\Ways\Asked;
use VineShelf\Picking\Ways\SameLayer;
use VineShelf\Picking\Ways\Top;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** How far from a pick relatives are looked for. */
enum Scope: string
{
    case Project = 'project';
    case Outermost = 'outermost';
    case Layer = 'layer';

    public function label(): string
    {
        return match ($this) {
            self::Project => 'Whole project',
            self::Outermost => 'Same outermost group',
            self::Layer => 'Same layer',
        };
    }

    /** The rows to look among. */
    public function around(Bits $pick, Facts $facts): Bits
    {
        return match ($this) {
            self::Project => Bits::all($pick->length),
            self::Outermost => Relatives::within($facts->scene, (new Top)->of($pick, $facts, new Asked)),
            self::Layer => (new SameLayer)->of($pick, $facts, new Asked),
        };
    }
}
