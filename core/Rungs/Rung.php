<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

/** How much of an object is drawn, from most to least; each rung is cheaper than the one above. */
enum Rung: int
{
    case Full = 5;
    case Plain = 4;
    case Coarse = 3;
    case Ghost = 2;
    case Box = 1;
    case Hidden = 0;

    public function label(): string
    {
        return $this->name;
    }

    /** The end of a sentence about an object, for example "is a ghost". */
    public function state(): string
    {
        return match ($this) {
            self::Full => 'is drawn in full',
            self::Plain => 'is drawn plain',
            self::Coarse => 'is drawn coarse',
            self::Ghost => 'is a ghost',
            self::Box => 'is drawn as a box',
            self::Hidden => 'is hidden',
        };
    }

    /** Triangles that a part of the given weight costs at this rung. */
    public function triangles(int $full): int
    {
        return match ($this) {
            self::Full, self::Plain, self::Coarse, self::Ghost => $full,
            self::Box => 12,
            self::Hidden => 0,
        };
    }
}
