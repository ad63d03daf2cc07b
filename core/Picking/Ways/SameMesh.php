<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** Every instance of its meshes. */
final class SameMesh implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        return $facts->ranked('mesh')->in(array_values(array_filter(Codes::of($pick, $facts->mesh(...)))))->or($pick);
    }
}
