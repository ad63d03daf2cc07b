<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Rungs\Rung;

/** What an object can be or have, without a value. */
enum State: string
{
    case Shown = 'is shown';
    case Hidden = 'is hidden';
    case Full = 'is full';
    case Plain = 'is plain';
    case Coarse = 'is coarse';
    case Ghost = 'is ghost';
    case Box = 'is box';
    case Open = 'is open';
    case Guarded = 'is guarded';
    case Locked = 'is locked';
    case Picked = 'is picked';
    case Unnamed = 'is unnamed';
    case Tagged = 'is tagged';
    case Untouched = 'is untouched';
    case HasGeometry = 'has geometry';
    case HasMaterial = 'has material';
    case HasTextures = 'has textures';
    case HasChildren = 'has children';
    case HasParent = 'has parent';
    case HasClass = 'has class';
    case HasProperties = 'has properties';

    /** "is" or "has". */
    public function verb(): string
    {
        return strtok($this->value, ' ') ?: '';
    }

    public function word(): string
    {
        return substr($this->value, strlen($this->verb()) + 1);
    }

    public static function named(string $verb, string $word): ?self
    {
        return self::tryFrom("$verb ".mb_strtolower($word));
    }

    public function rung(): ?Rung
    {
        return match ($this) {
            self::Hidden => Rung::Hidden,
            self::Full => Rung::Full,
            self::Plain => Rung::Plain,
            self::Coarse => Rung::Coarse,
            self::Ghost => Rung::Ghost,
            self::Box => Rung::Box,
            default => null,
        };
    }

    public function meaning(): string
    {
        return match ($this) {
            self::Shown => 'drawn in some way, as a box or more',
            self::Hidden, self::Full, self::Plain, self::Coarse, self::Ghost, self::Box => 'the rung in effect on your desk',
            self::Open => 'neither guarded nor locked',
            self::Guarded => 'guarded or locked',
            self::Locked => 'locked',
            self::Picked => 'in the pick',
            self::Unnamed => 'without a name',
            self::Tagged => 'with at least one tag',
            self::Untouched => 'still in Unsorted and without a tag',
            self::HasGeometry => 'draws something itself',
            self::HasMaterial => 'draws something with a material',
            self::HasTextures => 'draws something with a picture on it',
            self::HasChildren => 'holds other objects',
            self::HasParent => 'is held by another object',
            self::HasClass => 'has a class from its file',
            self::HasProperties => 'has any property from its file',
        };
    }
}
