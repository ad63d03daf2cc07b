<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** What directly holds the pick; what has nothing above it stays. */
final class Up implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $rows = [];
        foreach ($pick->rows() as $row) {
            $above = $facts->scene->parent($row) ?: $row;
            $rows[$above] = $above;
        }
        sort($rows);

        return Bits::ofRows($pick->length, $rows);
    }
}
