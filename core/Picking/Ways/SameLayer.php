<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** Everything in the same layers. */
final class SameLayer implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $layers = $facts->scene->layers();

        return $layers->rowsOf($layers->histogram($pick));
    }
}
