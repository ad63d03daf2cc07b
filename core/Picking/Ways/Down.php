<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** What stands directly below the pick; what holds nothing stays. */
final class Down implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $rows = [];
        foreach ($pick->rows() as $row) {
            array_push($rows, ...$facts->scene->end($row) > $row ? $facts->scene->children($row) : [$row]);
        }
        sort($rows);

        return Bits::ofRows($pick->length, $rows);
    }
}
