<?php

declare(strict_types=1);

namespace VineShelf\Locks;

/** How an object is protected; the highest step along its chain is in effect. */
enum Lock: int
{
    case Open = 0;
    case Guarded = 1;
    case Locked = 2;

    public function label(): string
    {
        return $this->name;
    }

    public function state(): string
    {
        return match ($this) {
            self::Open => 'is open',
            self::Guarded => 'is guarded: it cannot be picked in the canvas',
            self::Locked => 'is locked: it cannot be picked in the canvas or changed',
        };
    }

    /** The step that one click leads to. */
    public function next(): self
    {
        return match ($this) {
            self::Open => self::Guarded,
            self::Guarded => self::Locked,
            self::Locked => self::Open,
        };
    }
}
