<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** What a click on a part takes. */
enum Takes: string
{
    case Part = 'part';
    case Group = 'group';
    case Outermost = 'outermost';

    /**
     * The row that a click on each row takes.
     *
     * The outermost group is the one at the top of the nesting, or below a single group that wraps everything, as such a group says
     * nothing; inside a group that somebody stepped into, it is the one directly in there.
     *
     * @param int $inside row of the group that somebody stepped into, 0 for none
     *
     * @return list<int> by row, row 0 first
     */
    public function rows(Scene $scene, int $inside = 0): array
    {
        $count = $scene->count();
        if ($this === self::Part || $count === 0) {
            return range(0, $count);
        }
        $parents = Packed::uint32($scene->column('parent'), 0, $count + 1);
        /** @var list<int> $taken */
        $taken = [0];
        if ($this === self::Group) {
            for ($row = 1; $row <= $count; $row++) {
                $taken[] = $parents[$row] === 0 ? $row : $parents[$row];
            }

            return $taken;
        }
        $wrapper = $scene->end(1) === $count && $count > 1 ? 1 : 0;
        $last = $inside === 0 ? 0 : $scene->end($inside);
        for ($row = 1; $row <= $count; $row++) {
            $base = $row > $inside && $row <= $last ? $inside : $wrapper;
            $taken[] = $parents[$row] === $base || $parents[$row] === 0 ? $row : $taken[$parents[$row]] ?? $row;
        }

        return $taken;
    }

    /** The rows that are taken where others are caught. */
    public function of(Scene $scene, Bits $caught, int $inside = 0): Bits
    {
        if ($this === self::Part) {
            return $caught;
        }
        $taken = $this->rows($scene, $inside);
        $rows = [];
        foreach ($caught->rows() as $row) {
            $rows[$taken[$row]] = $taken[$row];
        }
        sort($rows);

        return Bits::ofRows($scene->count(), $rows);
    }
}
