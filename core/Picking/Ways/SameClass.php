<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/** Everything of the same class. */
final class SameClass implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $classes = $facts->scene->column('class');

        return $facts->ranked('class')->in(Codes::of($pick, static fn (int $row): int => Packed::uint32At($classes, $row)))->or($pick);
    }
}
