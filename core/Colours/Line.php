<?php

declare(strict_types=1);

namespace VineShelf\Colours;

/** How the edges of what a layer or a tag holds are drawn, in its colour. */
enum Line: int
{
    /** No edges of its own: only ghosts have some, and those are solid. */
    case None = 0;
    case Solid = 1;
    case Dashed = 2;
    case Dotted = 3;
    case DashDot = 4;

    public function label(): string
    {
        return match ($this) {
            self::None => 'No edges',
            self::Solid => 'Solid',
            self::Dashed => 'Dashed',
            self::Dotted => 'Dotted',
            self::DashDot => 'Dash-dot',
        };
    }

    /** @return string the pattern as SVG writes it, for a line one pixel wide; empty for a solid one */
    public function dashes(): string
    {
        return match ($this) {
            self::None, self::Solid => '',
            self::Dashed => '6 3',
            self::Dotted => '1.5 2.5',
            self::DashDot => '7 2.5 1.5 2.5',
        };
    }
}
