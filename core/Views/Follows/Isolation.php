<?php

declare(strict_types=1);

namespace VineShelf\Views\Follows;

use VineShelf\Scene\Bits;
use VineShelf\Views\KeptState;
use VineShelf\Views\Known;
use VineShelf\Views\Resorting;

/** What leaves a group that is shown alone is shown alone itself; layers and tags mean nothing to it. */
final readonly class Isolation implements Follows
{
    public function held(KeptState $before, KeptState $kept, Resorting $change, Known $known, Bits $counted): KeptState
    {
        return $kept->isolation === null ? $kept : $kept->withIsolation($change->regrouping->alone($kept->isolation));
    }
}
