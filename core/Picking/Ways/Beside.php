<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** The pick and what stands under the same parents. */
final class Beside implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        return $pick->or(Relatives::beside($facts->scene, $pick));
    }
}
