<?php

declare(strict_types=1);

namespace VineShelf\Locks;

use VineShelf\Scene\Runs;

/** Keeps commands away from locked objects. */
final class Locked
{
    /**
     * @param list<array{int, int}> $ranges first and last row of each range
     * @param Runs                  $locks  lock in effect per row
     *
     * @return array{list<array{int, int}>, int} the ranges that are not locked, and how many rows are
     */
    public static function split(array $ranges, Runs $locks): array
    {
        $open = [];
        $locked = 0;
        foreach ($ranges as [$first, $last]) {
            for ($index = $locks->indexOf($first); $first <= $last; $index++) {
                $end = min($last, $locks->end($index));
                if ($locks->values[$index] === Lock::Locked->value) {
                    $locked += $end - $first + 1;
                } else {
                    $open[] = [$first, $end];
                }
                $first = $end + 1;
            }
        }

        return [$open, $locked];
    }
}
