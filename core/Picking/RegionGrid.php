<?php

declare(strict_types=1);

namespace VineShelf\Picking;

/**
 * A grid over a region that knows which of its cells are wholly inside, wholly outside, or mixed, and sums of those, so that how a
 * rectangle lies is answered by looking up four numbers.
 */
final class RegionGrid
{
    /** Least side of a cell, pixels. */
    private const CELL = 2.0;

    /** Cells along one side at most. */
    private const MOST_CELLS = 320;

    /** Cells along a side of a tile: for a large rectangle, outlines are looked up by tiles. */
    private const TILE = 8;

    /** Cells of a rectangle that are looked at one by one. */
    private const FEW = 12;

    public readonly float $left;

    public readonly float $top;

    private readonly float $cell;

    private readonly int $columns;

    private readonly int $rows;

    /** @var array<int, int> by cell, row after row */
    private array $cells;

    /** @var array<int, array<int, Outline>> the outlines that pass through a mixed cell, by their places in the list */
    private array $through = [];

    private readonly int $tiles;

    /** @var array<int, array<int, Outline>> by tile, row after row: the outlines whose boxes reach into it, by their places in the list */
    private array $around = [];

    /** @var list<int> cells that are not outside, summed from the upper left; one row and column more than cells */
    private array $notOut;

    /** @var list<int> cells that are not inside, summed likewise */
    private array $notIn;

    /** @param non-empty-list<Outline> $outlines */
    public function __construct(private readonly array $outlines)
    {
        $this->left = min(array_map(static fn (Outline $outline): float => $outline->left, $outlines));
        $this->top = min(array_map(static fn (Outline $outline): float => $outline->top, $outlines));
        $wide = max(array_map(static fn (Outline $outline): float => $outline->right, $outlines)) - $this->left;
        $tall = max(array_map(static fn (Outline $outline): float => $outline->bottom, $outlines)) - $this->top;
        $this->cell = max(self::CELL, $wide / self::MOST_CELLS, $tall / self::MOST_CELLS);
        $this->columns = (int) floor($wide / $this->cell) + 1;
        $this->rows = (int) floor($tall / $this->cell) + 1;
        $this->tiles = intdiv($this->columns - 1, self::TILE) + 1;
        $this->classify();
    }

    /**
     * The outlines that may reach into a rectangle of the picture which is mixed: all that do are among them. One that passes through none
     * of its cells is around all of them, and then they were inside, or around none.
     *
     * @return array<int, Outline> by their places in the list, in any order
     */
    public function outlinesAround(float $left, float $top, float $right, float $bottom): array
    {
        if (count($this->outlines) === 1) {
            return $this->outlines;
        }
        $c1 = $left > $this->left ? (int) (($left - $this->left) / $this->cell) : 0;
        $r1 = $top > $this->top ? (int) (($top - $this->top) / $this->cell) : 0;
        $c2 = min($this->columns - 1, (int) (($right - $this->left) / $this->cell));
        $r2 = min($this->rows - 1, (int) (($bottom - $this->top) / $this->cell));
        if ($c1 === $c2 && $r1 === $r2) {
            return $this->through[$r1 * $this->columns + $c1] ?? [];
        }
        if (($c2 - $c1 + 1) * ($r2 - $r1 + 1) <= self::FEW) {
            $found = [];
            for ($row = $r1; $row <= $r2; $row++) {
                for ($at = $row * $this->columns + $c1, $end = $at + $c2 - $c1; $at <= $end; $at++) {
                    $found += $this->through[$at] ?? [];
                }
            }

            return $found;
        }
        [$first, $last, $upper, $lower] = $this->tiles($left, $top, $right, $bottom);
        if (($last - $first + 1) * ($lower - $upper + 1) > count($this->outlines)) {
            return $this->outlines;
        }
        $found = [];
        for ($row = $upper; $row <= $lower; $row++) {
            for ($column = $first; $column <= $last; $column++) {
                $found += $this->around[$row * $this->tiles + $column] ?? [];
            }
        }

        return $found;
    }

    /** @return array{int, int, int, int} first and last column, first and last row of the tiles under a rectangle */
    private function tiles(float $left, float $top, float $right, float $bottom): array
    {
        $side = $this->cell * self::TILE;
        $lowest = intdiv($this->rows - 1, self::TILE);

        return [
            max(0, min($this->tiles - 1, (int) floor(($left - $this->left) / $side))),
            max(0, min($this->tiles - 1, (int) floor(($right - $this->left) / $side))),
            max(0, min($lowest, (int) floor(($top - $this->top) / $side))),
            max(0, min($lowest, (int) floor(($bottom - $this->top) / $side))),
        ];
    }

    /** How a rectangle of the picture lies to the region, as far as cells can tell. */
    public function rectangleIs(float $left, float $top, float $right, float $bottom): int
    {
        $c1 = ($left - $this->left) / $this->cell;
        $r1 = ($top - $this->top) / $this->cell;
        $c2 = ($right - $this->left) / $this->cell;
        $r2 = ($bottom - $this->top) / $this->cell;
        if ($c2 < 0 || $r2 < 0 || $c1 >= $this->columns || $r1 >= $this->rows) {
            return Region::OUT;
        }
        $whole = $c1 >= 0 && $r1 >= 0 && $c2 < $this->columns && $r2 < $this->rows;
        $wide = $this->columns + 1;
        // Cutting off what stands after the point is rounding down now, and quicker than floor().
        $c1 = $c1 > 0 ? (int) $c1 : 0;
        $upper = $r1 > 0 ? (int) $r1 * $wide : 0;
        $c2 = $c2 < $this->columns ? (int) $c2 + 1 : $this->columns;
        $lower = $r2 < $this->rows ? ((int) $r2 + 1) * $wide : $this->rows * $wide;
        $sums = $this->notOut;
        if ($sums[$lower + $c2] - $sums[$upper + $c2] - $sums[$lower + $c1] + $sums[$upper + $c1] === 0) {
            return Region::OUT;
        }
        if (! $whole) {
            return Region::MIXED;
        }
        $sums = $this->notIn;

        return $sums[$lower + $c2] - $sums[$upper + $c2] - $sums[$lower + $c1] + $sums[$upper + $c1] === 0 ? Region::IN : Region::MIXED;
    }

    /**
     * Where in a rectangle of the picture the region can be at all.
     *
     * @return array{float, float, float, float}|null left, top, right, bottom of the cells in it that are not outside; null when all are
     */
    public function reached(float $left, float $top, float $right, float $bottom): ?array
    {
        $c1 = (int) floor(max(0.0, ($left - $this->left) / $this->cell));
        $r1 = (int) floor(max(0.0, ($top - $this->top) / $this->cell));
        $c2 = (int) floor(min($this->columns - 1.0, ($right - $this->left) / $this->cell));
        $r2 = (int) floor(min($this->rows - 1.0, ($bottom - $this->top) / $this->cell));
        if ($c1 > $c2 || $r1 > $r2 || $this->notOutside($c1, $r1, $c2, $r2) === 0) {
            return null;
        }
        // Each side moves in by halves until the next cells on it are not all outside.
        $c1 = self::first($c1, $c2, fn (int $column): bool => $this->notOutside($c1, $r1, $column, $r2) > 0);
        $c2 = $c2 - self::first(0, $c2 - $c1, fn (int $off): bool => $this->notOutside($c2 - $off, $r1, $c2, $r2) > 0);
        $r1 = self::first($r1, $r2, fn (int $row): bool => $this->notOutside($c1, $r1, $c2, $row) > 0);
        $r2 = $r2 - self::first(0, $r2 - $r1, fn (int $off): bool => $this->notOutside($c1, $r2 - $off, $c2, $r2) > 0);

        return [
            $this->left + $c1 * $this->cell,
            $this->top + $r1 * $this->cell,
            $this->left + ($c2 + 1) * $this->cell,
            $this->top + ($r2 + 1) * $this->cell,
        ];
    }

    /** @param \Closure(int): bool $is not so up to somewhere, and so from there to the end */
    private static function first(int $from, int $to, \Closure $is): int
    {
        while ($from < $to) {
            $middle = intdiv($from + $to, 2);
            if ($is($middle)) {
                $to = $middle;
            } else {
                $from = $middle + 1;
            }
        }

        return $from;
    }

    /** How many cells are not outside, the last column and row counted too. */
    private function notOutside(int $c1, int $r1, int $c2, int $r2): int
    {
        $sums = $this->notOut;
        $upper = $r1 * ($this->columns + 1);
        $lower = ($r2 + 1) * ($this->columns + 1);

        return $sums[$lower + $c2 + 1] - $sums[$upper + $c2 + 1] - $sums[$lower + $c1] + $sums[$upper + $c1];
    }

    /** @return int|array<int, Outline> whether a place is in or out; where its cell is mixed, the outlines that pass through it */
    public function at(float $x, float $y): int|array
    {
        $column = ($x - $this->left) / $this->cell;
        $row = ($y - $this->top) / $this->cell;
        if ($column < 0 || $row < 0 || $column >= $this->columns || $row >= $this->rows) {
            return Region::OUT;
        }
        $at = (int) $row * $this->columns + (int) $column;
        $is = $this->cells[$at];

        return $is === Region::MIXED ? $this->through[$at] : $is;
    }

    private function classify(): void
    {
        $this->cells = array_fill(0, $this->columns * $this->rows, Region::OUT);
        /** @var array<int, int> $covers how many more outlines are around a cell than around the one before it in its row */
        $covers = [];
        foreach ($this->outlines as $index => $outline) {
            $outline->cut($this->cell);
            [$first, $last, $upper, $lower] = $this->tiles($outline->left, $outline->top, $outline->right, $outline->bottom);
            for ($tile = $upper; $tile <= $lower; $tile++) {
                for ($column = $first; $column <= $last; $column++) {
                    $this->around[$tile * $this->tiles + $column][$index] = $outline;
                }
            }
            foreach ($outline->columns($this->left, $this->top, $this->cell) as $row => $mixed) {
                if ($row >= 0 && $row < $this->rows) {
                    $this->mark($index, $row, $mixed, $covers);
                }
            }
        }
        $this->sum($covers);
    }

    /**
     * Marks the cells of a row that an outline passes through. Those between two of them are all on the same side.
     *
     * @param array<int, true> $mixed  by column
     * @param array<int, int>  $covers
     *
     * @param-out array<int, int> $covers
     */
    private function mark(int $index, int $row, array $mixed, array &$covers): void
    {
        ksort($mixed);
        $outline = $this->outlines[$index];
        $y = $this->top + ($row + 0.5) * $this->cell;
        $start = $row * $this->columns;
        $before = -1;
        foreach ($mixed as $column => $_) {
            if ($column < 0 || $column >= $this->columns) {
                continue;
            }
            $at = $start + $column;
            $this->cells[$at] = Region::MIXED;
            $this->through[$at][$index] = $outline;
            if ($before >= 0 && $column > $before + 1 && $outline->has($this->left + ($before + 1.5) * $this->cell, $y)) {
                $from = $start + $before + 1;
                $covers[$from] = ($covers[$from] ?? 0) + 1;
                $covers[$at] = ($covers[$at] ?? 0) - 1;
            }
            $before = $column;
        }
    }

    /** @param array<int, int> $covers how many more outlines are around a cell than around the one before it in its row */
    private function sum(array $covers): void
    {
        $cells = $this->cells;
        $notOut = $notIn = array_fill(0, $this->columns + 1, 0);
        $around = $at = 0;
        $above = 1;
        for ($row = 0; $row < $this->rows; $row++) {
            $outs = $ins = 0;
            $notOut[] = $notIn[] = 0;
            for ($column = 0; $column < $this->columns; $column++, $at++, $above++) {
                if (isset($covers[$at])) {
                    $around += $covers[$at];
                }
                if ($around > 0) {
                    $cells[$at] = Region::IN;
                    $outs++;
                } else {
                    $ins++;
                    $outs += $cells[$at];
                }
                $notOut[] = $notOut[$above] + $outs;
                $notIn[] = $notIn[$above] + $ins;
            }
            $above++;
        }
        $this->cells = $cells;
        $this->notOut = $notOut;
        $this->notIn = $notIn;
    }
}
