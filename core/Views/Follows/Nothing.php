<?php

declare(strict_types=1);

namespace VineShelf\Views\Follows;

use VineShelf\Scene\Bits;
use VineShelf\Views\KeptState;
use VineShelf\Views\Known;
use VineShelf\Views\Resorting;

/** Cameras and sections are places in the world: they say nothing of objects, however those are sorted. */
final readonly class Nothing implements Follows
{
    public function held(KeptState $before, KeptState $kept, Resorting $change, Known $known, Bits $counted): KeptState
    {
        return $kept;
    }
}
