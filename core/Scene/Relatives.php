<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Objects above, below and beside others. */
final class Relatives
{
    /** Everything below the rows, at any depth. A row itself is among it only when it is below another one. */
    public static function inside(Scene $scene, Bits $rows): Bits
    {
        $ranges = [];
        $covered = 0;
        foreach ($rows->ranges() as [$first, $last]) {
            for ($row = max($first, $covered + 1); $row <= $last; $row = $end + 1) {
                $end = $scene->end($row);
                if ($end > $row) {
                    $ranges[] = [$row + 1, $end];
                    $covered = $end;
                }
            }
        }

        return Bits::ofRanges($scene->count(), $ranges);
    }

    /** The rows and everything below them, at any depth. */
    public static function within(Scene $scene, Bits $rows): Bits
    {
        if ($rows->count() === $scene->count()) {
            return $rows;
        }
        $holding = $rows->and($scene->groupBits());
        $ranges = [];
        $covered = 0;
        foreach ($holding->rows() as $row) {
            if ($row > $covered) {
                $covered = $scene->end($row);
                $ranges[] = [$row, $covered];
            }
        }

        return $ranges === [] ? $rows : $rows->or(Bits::ofRanges($scene->count(), $ranges));
    }

    /** Everything above the rows, at any height. */
    public static function holding(Scene $scene, Bits $rows): Bits
    {
        $above = [];
        $parents = $scene->column('parent');
        foreach ($rows->rows() as $row) {
            $row = Packed::uint32At($parents, $row);
            while ($row !== 0 && ! isset($above[$row])) {
                $above[$row] = $row;
                $row = Packed::uint32At($parents, $row);
            }
        }
        sort($above);

        return Bits::ofRows($scene->count(), $above);
    }

    /** What stands under the same parents. A row itself is among it only when another one of the rows stands beside it. */
    public static function beside(Scene $scene, Bits $rows): Bits
    {
        $lone = [];
        $parents = $scene->column('parent');
        foreach ($rows->rows() as $row) {
            $parent = Packed::uint32At($parents, $row);
            // The first of the rows under a parent, or 0 once there are several.
            $lone[$parent] = isset($lone[$parent]) ? 0 : $row;
        }
        $beside = [];
        foreach ($lone as $parent => $row) {
            foreach ($scene->children($parent) as $child) {
                if ($child !== $row) {
                    $beside[] = $child;
                }
            }
        }
        sort($beside);

        return Bits::ofRows($scene->count(), $beside);
    }
}
