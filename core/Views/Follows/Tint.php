<?php

declare(strict_types=1);

namespace VineShelf\Views\Follows;

use VineShelf\Scene\Bits;
use VineShelf\Views\KeptState;
use VineShelf\Views\Known;
use VineShelf\Views\Resorting;

/** What leaves a group that alone is tinted stays tinted. Tints by what objects are sorted by are there to show how that stands now. */
final readonly class Tint implements Follows
{
    public function held(KeptState $before, KeptState $kept, Resorting $change, Known $known, Bits $counted): KeptState
    {
        return $kept->tinted === null ? $kept : $kept->withTinted($change->regrouping->following($kept->tinted));
    }
}
