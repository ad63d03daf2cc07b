<?php

declare(strict_types=1);

namespace VineShelf\Picking;

/**
 * A part of the picture: one outline, or several convex ones together, as a brush leaves them.
 *
 * A grid over it knows which of its cells are wholly inside, wholly outside, or mixed, and sums of those, so that most questions
 * are answered by looking up four numbers; only what falls on mixed cells is compared with the outlines themselves.
 */
final class Region
{
    public const OUT = 0;

    public const MIXED = 1;

    public const IN = 2;

    private const CELL = 2.0;

    private const MOST_CELLS = 320;

    public readonly float $left;

    public readonly float $top;

    /** Whether all that has its corners in the region lies in it. */
    public readonly bool $isConvex;

    private readonly float $cell;

    private readonly int $columns;

    private readonly int $rows;

    /** @var array<int, int> by cell, row after row */
    private array $cells;

    /** @var array<int, list<int>> the outlines that pass through a mixed cell */
    private array $through = [];

    /** @var list<int> cells that are not outside, summed from the upper left; one row and column more than cells */
    private array $notOut;

    /** @var list<int> cells that are not inside, summed likewise */
    private array $notIn;

    /** @param non-empty-list<Outline> $outlines more than one only if all are convex */
    private function __construct(private readonly array $outlines)
    {
        $this->left = min(array_map(static fn (Outline $outline): float => $outline->left, $outlines));
        $this->top = min(array_map(static fn (Outline $outline): float => $outline->top, $outlines));
        $wide = max(array_map(static fn (Outline $outline): float => $outline->right, $outlines)) - $this->left;
        $tall = max(array_map(static fn (Outline $outline): float => $outline->bottom, $outlines)) - $this->top;
        $this->cell = max(self::CELL, $wide / self::MOST_CELLS, $tall / self::MOST_CELLS);
        $this->columns = (int) floor($wide / $this->cell) + 1;
        $this->rows = (int) floor($tall / $this->cell) + 1;
        $this->isConvex = count($outlines) === 1 && $outlines[0]->isConvex();
        $this->classify();
        $this->sum();
    }

    public static function rectangle(float $x1, float $y1, float $x2, float $y2): self
    {
        [$left, $right] = [min($x1, $x2), max($x1, $x2)];
        [$top, $bottom] = [min($y1, $y2), max($y1, $y2)];

        return new self([new Outline([$left, $right, $right, $left], [$top, $top, $bottom, $bottom])]);
    }

    /** A circle as a polygon of 72 corners: off by less than a thousandth of its radius. */
    public static function circle(float $x, float $y, float $radius): self
    {
        return new self([self::round($x, $y, $x, $y, $radius, 72)]);
    }

    /** @param non-empty-list<array{float, float}> $corners three or more */
    public static function polygon(array $corners): self
    {
        return new self([
            new Outline(
                array_map(static fn (array $corner): float => $corner[0], $corners),
                array_map(static fn (array $corner): float => $corner[1], $corners),
            ),
        ]);
    }

    /**
     * What a round brush covers on its way.
     *
     * @param non-empty-list<array{float, float}> $path
     */
    public static function brush(array $path, float $radius): self
    {
        $outlines = [];
        foreach ($path as $index => [$x, $y]) {
            if ($index > 0 || count($path) === 1) {
                [$fromX, $fromY] = $path[max(0, $index - 1)];
                $outlines[] = self::round($fromX, $fromY, $x, $y, $radius, 32);
            }
        }

        /** @var non-empty-list<Outline> $outlines */
        return new self($outlines);
    }

    /** How a rectangle of the picture lies to the region; MIXED may also be said where only the outlines themselves could tell. */
    public function rectangleIs(float $left, float $top, float $right, float $bottom): int
    {
        $c1 = (int) floor(($left - $this->left) / $this->cell);
        $r1 = (int) floor(($top - $this->top) / $this->cell);
        $c2 = (int) floor(($right - $this->left) / $this->cell);
        $r2 = (int) floor(($bottom - $this->top) / $this->cell);
        if ($c2 < 0 || $r2 < 0 || $c1 >= $this->columns || $r1 >= $this->rows) {
            return self::OUT;
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
            return self::OUT;
        }

        return $whole &&
            $this->notIn[$r2 * $wide + $c2] -
                $this->notIn[$r1 * $wide + $c2] -
                $this->notIn[$r2 * $wide + $c1] +
                $this->notIn[$r1 * $wide + $c1] ===
                0
            ? self::IN
            : self::MIXED;
    }

    /** The same, and MIXED only where the region's edge really passes through the rectangle. */
    public function rectangleIsExactly(float $left, float $top, float $right, float $bottom): int
    {
        $is = $this->rectangleIs($left, $top, $right, $bottom);
        if ($is !== self::MIXED) {
            return $is;
        }
        $is = self::OUT;
        foreach ($this->outlines as $outline) {
            if ($outline->right < $left || $outline->left > $right || $outline->bottom < $top || $outline->top > $bottom) {
                continue;
            }
            if ($outline->crossesRectangle($left, $top, $right, $bottom)) {
                $is = self::MIXED;
            } elseif ($outline->has($left, $top)) {
                return self::IN;
            }
        }

        return $is;
    }

    public function has(float $x, float $y): bool
    {
        $column = (int) floor(($x - $this->left) / $this->cell);
        $row = (int) floor(($y - $this->top) / $this->cell);
        if ($column < 0 || $row < 0 || $column >= $this->columns || $row >= $this->rows) {
            return false;
        }
        $at = $row * $this->columns + $column;
        $is = $this->cells[$at];
        if ($is !== self::MIXED) {
            return $is === self::IN;
        }
        foreach ($this->through[$at] as $outline) {
            if ($this->outlines[$outline]->has($x, $y)) {
                return true;
            }
        }

        return false;
    }

    /**
     * Whether a convex polygon of one to four corners and the region have any place in common.
     *
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    public function touches(array $x, array $y): bool
    {
        $is = $this->rectangleIs(min($x), min($y), max($x), max($y));
        if ($is !== self::MIXED) {
            return $is === self::IN;
        }
        [$left, $right, $top, $bottom] = [min($x), max($x), min($y), max($y)];
        foreach ($this->outlines as $outline) {
            if (
                $outline->right >= $left &&
                $outline->left <= $right &&
                $outline->bottom >= $top &&
                $outline->top <= $bottom &&
                $outline->touches($x, $y)
            ) {
                return true;
            }
        }

        return false;
    }

    /**
     * Whether a convex polygon of one to four corners lies wholly in the region.
     *
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    public function covers(array $x, array $y): bool
    {
        $is = $this->rectangleIs(min($x), min($y), max($x), max($y));
        if ($is !== self::MIXED) {
            return $is === self::IN;
        }

        if (count($this->outlines) === 1) {
            return $this->outlines[0]->covers($x, $y);
        }
        // Mostly one of several outlines covers it alone.
        [$left, $right, $top, $bottom] = [min($x), max($x), min($y), max($y)];
        foreach ($this->outlines as $outline) {
            if (
                $outline->left <= $left &&
                $outline->right >= $right &&
                $outline->top <= $top &&
                $outline->bottom >= $bottom &&
                $outline->covers($x, $y)
            ) {
                return true;
            }
        }

        return Clip::area($x, $y) < 1e-6 ? $this->coversLine($x, $y) : self::isUsedUp($this->outlines, 0, $x, $y);
    }

    /**
     * Whether the outlines together leave no gap on what is as thin as a line.
     *
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    private function coversLine(array $x, array $y): bool
    {
        $along = max($x) - min($x) >= max($y) - min($y) ? $x : $y;
        $from = (int) array_search(min($along), $along, true);
        $to = (int) array_search(max($along), $along, true);
        $stretches = [];
        foreach ($this->outlines as $outline) {
            $stretch = Clip::stretch($outline->x, $outline->y, $x[$from], $y[$from], $x[$to], $y[$to]);
            if ($stretch !== null) {
                $stretches[] = $stretch;
            }
        }
        sort($stretches);
        $reached = 0.0;
        foreach ($stretches as [$start, $end]) {
            if ($start > $reached + 1e-9) {
                return false;
            }
            $reached = max($reached, $end);
        }

        return $reached >= 1 - 1e-9;
    }

    /**
     * Whether nothing is left of a convex polygon when all outlines from $from on are taken off it.
     *
     * @param list<Outline> $outlines
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    private static function isUsedUp(array $outlines, int $from, array $x, array $y): bool
    {
        [$left, $right, $top, $bottom] = [min($x), max($x), min($y), max($y)];
        for ($count = count($outlines); $from < $count; $from++) {
            $outline = $outlines[$from];
            if ($outline->right <= $left || $outline->left >= $right || $outline->bottom <= $top || $outline->top >= $bottom) {
                continue;
            }
            // Cut along each side of the outline: what lies beyond it must be covered by the others, what is within goes on to the next
            // side.
            for ($to = 0, $corners = count($outline->x), $back = $corners - 1; $to < $corners; $back = $to++) {
                [$beyondX, $beyondY] = Clip::half(
                    $x,
                    $y,
                    $outline->x[$back],
                    $outline->y[$back],
                    $outline->x[$to],
                    $outline->y[$to],
                    false,
                );
                if (count($beyondX) > 2 && $beyondY !== [] && ! self::isUsedUp($outlines, $from + 1, $beyondX, $beyondY)) {
                    return false;
                }
                [$x, $y] = Clip::half($x, $y, $outline->x[$back], $outline->y[$back], $outline->x[$to], $outline->y[$to], true);
                if (count($x) < 3 || $y === []) {
                    return true;
                }
            }

            return true;
        }

        return Clip::area($x, $y) < 1e-6;
    }

    /** Where a brush of a radius passes from one place to another; clockwise on the screen. */
    private static function round(float $fromX, float $fromY, float $toX, float $toY, float $radius, int $corners): Outline
    {
        $turn = atan2($toY - $fromY, $toX - $fromX) - M_PI / 2;
        $x = [$toX + $radius * cos($turn)];
        $y = [$toY + $radius * sin($turn)];
        for ($corner = 1; $corner < $corners; $corner++) {
            $ahead = $corner < $corners / 2;
            $angle = $turn + (2 * M_PI * $corner) / $corners;
            $x[] = ($ahead ? $toX : $fromX) + $radius * cos($angle);
            $y[] = ($ahead ? $toY : $fromY) + $radius * sin($angle);
        }

        return new Outline($x, $y);
    }

    private function classify(): void
    {
        $this->cells = array_fill(0, $this->columns * $this->rows, self::OUT);
        foreach ($this->outlines as $index => $outline) {
            $outline->cut($this->cell);
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
                $this->cells[$at] = max($this->cells[$at], self::MIXED);
                $this->through[$at][] = $index;
                $is = null;

                continue;
            }
            // Cells between two that are passed through are all on the same side.
            $is ??= $outline->has($this->left + ($column + 0.5) * $this->cell, $this->top + ($row + 0.5) * $this->cell);
            if ($is) {
                $this->cells[$at] = self::IN;
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
                $outs += $is === self::OUT ? 0 : 1;
                $ins += $is === self::IN ? 0 : 1;
                $above = $row * ($this->columns + 1) + $column + 1;
                $this->notOut[] = $this->notOut[$above] + $outs;
                $this->notIn[] = $this->notIn[$above] + $ins;
            }
        }
    }
}
