<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** The pick and everything below it. */
final class Below implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        return Relatives::within($facts->scene, $pick);
    }
}
