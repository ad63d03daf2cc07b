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

    /** Cells along a side of a tile: outlines are looked up by tiles. */
    private const TILE = 8;

    public readonly float $left;

    public readonly float $top;

    private readonly float $cell;

    private readonly int $columns;

    private readonly int $rows;

    /** @var array<int, int> by cell, row after row */
    private array $cells;

    /** @var array<int, list<int>> the outlines that pass through a mixed cell */
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
        $this->sum();
    }

    /**
     * The outlines that may reach into a rectangle of the picture: all that do are among them.
     *
     * @return array<int, Outline> by their places in the list, in any order
     */
    public function outlinesAround(float $left, float $top, float $right, float $bottom): array
    {
        if (count($this->outlines) === 1) {
            return $this->outlines;
        }
        [$first, $last, $upper, $lower] = $this->tiles($left, $top, $right, $bottom);
        if ($first === $last && $upper === $lower) {
            return $this->around[$upper * $this->tiles + $first] ?? [];
        }
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
        $c1 = (int) floor(($left - $this->left) / $this->cell);
        $r1 = (int) floor(($top - $this->top) / $this->cell);
        $c2 = (int) floor(($right - $this->left) / $this->cell);
        $r2 = (int) floor(($bottom - $this->top) / $this->cell);
        if ($c2 < 0 || $r2 < 0 || $c1 >= $this->columns || $r1 >= $this->rows) {
            return Region::OUT;
        }
        $whole = $c1 >= 0 && $r1 >= 0 && $c2 < $this->columns && $r2 < $this->rows;
        $c1 = max(0, $c1);
        $r1 = max(0, $r1);
        $c2 = min($this->columns - 1, $c2) + 1;
        $r2 = min($this->rows - 1, $r2) + 1;
        $wide = $this->columns + 1;
        if (
            $this->notOut[$r2 * $wide + $c2] -
                $this->notOut[$r1 * $wide + $c2] -
                $this->notOut[$r2 * $wide + $c1] +
                $this->notOut[$r1 * $wide + $c1] ===
            0
        ) {
            return Region::OUT;
        }

        return $whole &&
            $this->notIn[$r2 * $wide + $c2] -
                $this->notIn[$r1 * $wide + $c2] -
                $this->notIn[$r2 * $wide + $c1] +
                $this->notIn[$r1 * $wide + $c1] ===
                0
            ? Region::IN
            : Region::MIXED;
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

    /** @return int|list<int> whether a place is in or out; where its cell is mixed, the outlines that pass through it */
    public function at(float $x, float $y): int|array
    {
        $column = (int) floor(($x - $this->left) / $this->cell);
        $row = (int) floor(($y - $this->top) / $this->cell);
        if ($column < 0 || $row < 0 || $column >= $this->columns || $row >= $this->rows) {
            return Region::OUT;
        }
        $at = $row * $this->columns + $column;

        return $this->cells[$at] === Region::MIXED ? $this->through[$at] : $this->cells[$at];
    }

    private function classify(): void
    {
        $this->cells = array_fill(0, $this->columns * $this->rows, Region::OUT);
        foreach ($this->outlines as $index => $outline) {
            $outline->cut($this->cell);
            [$first, $last, $upper, $lower] = $this->tiles($outline->left, $outline->top, $outline->right, $outline->bottom);
            for ($tile = $upper; $tile <= $lower; $tile++) {
                for ($column = $first; $column <= $last; $column++) {
                    $this->around[$tile * $this->tiles + $column][$index] = $outline;
                }
            }
            for ($row = 0; $row < $this->rows; $row++) {
                // Bands of the outline do not lie on the grid: two of them may pass through a row of cells.
                $band = ($this->top + $row * $this->cell - $outline->top) / $this->cell;
                if ($band < -1 || $band > ($outline->bottom - $outline->top) / $this->cell + 1) {
                    continue;
                }
                $passes = [...$outline->passes((int) floor($band)), ...$outline->passes((int) floor($band) + 1)];
                $this->fill($index, $row, $passes);
            }
        }
    }

    /**
     * Marks the cells of a row that an outline passes through, and fills those between them.
     *
     * @param list<array{float, float}> $passes least and greatest x of each side in the row
     */
    private function fill(int $index, int $row, array $passes): void
    {
        $outline = $this->outlines[$index];
        $mixed = [];
        foreach ($passes as [$from, $to]) {
            for (
                $column = max(0, (int) floor(($from - 0.01 - $this->left) / $this->cell)),
                $last = min($this->columns - 1, (int) floor(($to + 0.01 - $this->left) / $this->cell));
                $column <= $last;
                $column++
            ) {
                $mixed[$column] = true;
            }
        }
        $first = max(0, (int) floor(($outline->left - $this->left) / $this->cell));
        $last = min($this->columns - 1, (int) floor(($outline->right - $this->left) / $this->cell));
        $is = null;
        for ($column = $first; $column <= $last; $column++) {
            $at = $row * $this->columns + $column;
            if (isset($mixed[$column])) {
                $this->cells[$at] = max($this->cells[$at], Region::MIXED);
                $this->through[$at][] = $index;
                $is = null;

                continue;
            }
            // Cells between two that are passed through are all on the same side.
            $is ??= $outline->has($this->left + ($column + 0.5) * $this->cell, $this->top + ($row + 0.5) * $this->cell);
            if ($is) {
                $this->cells[$at] = Region::IN;
            }
        }
    }

    private function sum(): void
    {
        $this->notOut = $this->notIn = array_fill(0, $this->columns + 1, 0);
        for ($row = 0; $row < $this->rows; $row++) {
            $outs = $ins = 0;
            $this->notOut[] = $this->notIn[] = 0;
            for ($column = 0; $column < $this->columns; $column++) {
                $is = $this->cells[$row * $this->columns + $column];
                $outs += $is === Region::OUT ? 0 : 1;
                $ins += $is === Region::IN ? 0 : 1;
                $above = $row * ($this->columns + 1) + $column + 1;
                $this->notOut[] = $this->notOut[$above] + $outs;
                $this->notIn[] = $this->notIn[$above] + $ins;
            }
        }
    }
}
