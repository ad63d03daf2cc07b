<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/** What is nested as deep, wherever it is. */
final class SameDepth implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $depths = $facts->scene->column('depths');

        return $facts->ranked('depth')->in(Codes::of($pick, static fn (int $row): int => Packed::uint32At($depths, $row)));
    }
}
