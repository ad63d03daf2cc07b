<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** The topmost groups that hold the pick. */
final class Top implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $rows = [];
        $last = 0;
        foreach ($pick->rows() as $row) {
            if ($row > $last) {
                $top = $row;
                while (($above = $facts->scene->parent($top)) !== 0) {
                    $top = $above;
                }
                $rows[] = $top;
                $last = $facts->scene->end($top);
            }
        }

        return Bits::ofRows($pick->length, $rows);
    }
}
