<?php

declare(strict_types=1);

namespace VineShelf\Picking;

/**
 * A closed outline in the picture; a place is inside when a line from it to far away crosses the outline an odd number of times.
 *
 * Other shapes are compared as convex polygons of one to four corners, given as flat lists of x and y.
 */
final class Outline
{
    public readonly float $left;

    public readonly float $top;

    public readonly float $right;

    public readonly float $bottom;

    /** @var int<1, max> */
    private readonly int $corners;

    /** @var array<int, list<int<0, max>>> for each band of the picture, the sides that pass through it, by the corner where they end */
    private array $bands = [];

    private float $band = INF;

    /**
     * @param non-empty-list<float> $x pixels
     * @param non-empty-list<float> $y pixels
     */
    public function __construct(public readonly array $x, public readonly array $y)
    {
        $this->corners = count($x);
        [$this->left, $this->right, $this->top, $this->bottom] = [min($x), max($x), min($y), max($y)];
        $this->bands = [range(0, $this->corners - 1)];
    }

    /** Sorts the sides into bands that are $tall pixels high, so that only a few of them are looked at for a place. */
    public function cut(float $tall): void
    {
        $this->band = $tall;
        $this->bands = array_fill(0, (int) floor(($this->bottom - $this->top) / $tall) + 1, []);
        for ($at = 0, $before = $this->corners - 1; $at < $this->corners; $before = $at++) {
            $first = (int) floor((min($this->y[$at], $this->y[$before]) - $this->top) / $tall);
            $last = (int) floor((max($this->y[$at], $this->y[$before]) - $this->top) / $tall);
            for ($band = $first; $band <= $last; $band++) {
                $this->bands[$band][] = $at;
            }
        }
    }

    /**
     * The cells of a grid that the outline passes through, with a hundredth of a pixel to each side.
     *
     * @param float $left where column 0 begins
     * @param float $top  where row 0 begins
     * @param float $cell side of a cell, pixels
     *
     * @return array<int, array<int, true>> by row, by column
     */
    public function columns(float $left, float $top, float $cell): array
    {
        $found = [];
        for ($at = 0, $before = $this->corners - 1; $at < $this->corners; $before = $at++) {
            $ax = $this->x[$before] - $left;
            $ay = $this->y[$before] - $top;
            $bx = $this->x[$at] - $left;
            $by = $this->y[$at] - $top;
            if ($ay > $by) {
                [$ax, $ay, $bx, $by] = [$bx, $by, $ax, $ay];
            }
            $last = (int) floor(($by + 0.01) / $cell);
            for ($row = (int) floor(($ay - 0.01) / $cell); $row <= $last; $row++) {
                $from = $ax;
                $to = $bx;
                if ($by > $ay) {
                    $upper = ($row * $cell - 0.01 - $ay) / ($by - $ay);
                    $lower = (($row + 1) * $cell + 0.01 - $ay) / ($by - $ay);
                    $from = $upper > 0 ? $ax + ($bx - $ax) * ($upper < 1 ? $upper : 1) : $ax;
                    $to = $lower < 1 ? $ax + ($bx - $ax) * ($lower > 0 ? $lower : 0) : $bx;
                }
                $end = (int) floor((($from > $to ? $from : $to) + 0.01) / $cell);
                for ($column = (int) floor((($from < $to ? $from : $to) - 0.01) / $cell); $column <= $end; $column++) {
                    $found[$row][$column] = true;
                }
            }
        }

        return $found;
    }

    /** Whether the box around it has any place in common with a rectangle. */
    public function meets(float $left, float $top, float $right, float $bottom): bool
    {
        return $this->right >= $left && $this->left <= $right && $this->bottom >= $top && $this->top <= $bottom;
    }

    /** Whether the outline turns one way only, and once around. */
    public function isConvex(): bool
    {
        $way = $sense = $reversals = 0;
        for ($at = 0; $at < $this->corners; $at++) {
            $next = ($at + 1) % $this->corners;
            $after = ($at + 2) % $this->corners;
            $turn =
                ($this->x[$next] - $this->x[$at]) * ($this->y[$after] - $this->y[$next]) -
                ($this->y[$next] - $this->y[$at]) * ($this->x[$after] - $this->x[$next]);
            $step = $this->x[$next] <=> $this->x[$at];
            if (($turn <=> 0) * $way < 0) {
                return false;
            }
            $way = $turn <=> 0 ?: $way;
            $reversals += $step * $sense < 0 ? 1 : 0;
            $sense = $step ?: $sense;
        }

        return $way !== 0 && $reversals <= 2;
    }

    public function has(float $x, float $y): bool
    {
        $inside = false;
        $xs = $this->x;
        $ys = $this->y;
        foreach ($this->bands[$this->band === INF ? 0 : (int) floor(($y - $this->top) / $this->band)] ?? [] as $at) {
            $before = $at === 0 ? $this->corners - 1 : $at - 1;
            $fromY = $ys[$before];
            $toY = $ys[$at];
            if ($toY > $y !== $fromY > $y && $x < (($xs[$before] - $xs[$at]) * ($y - $toY)) / ($fromY - $toY) + $xs[$at]) {
                $inside = ! $inside;
            }
        }

        return $inside;
    }

    /**
     * Whether a polygon and the inside have any place in common.
     *
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    public function touches(array $x, array $y): bool
    {
        foreach ($x as $corner => $at) {
            if ($this->has($at, $y[$corner])) {
                return true;
            }
        }

        return $this->crosses($x, $y);
    }

    /**
     * Whether a polygon lies wholly inside.
     *
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    public function covers(array $x, array $y): bool
    {
        foreach ($x as $corner => $at) {
            if (! $this->has($at, $y[$corner])) {
                return false;
            }
        }

        return ! $this->crosses($x, $y);
    }

    /**
     * Whether the outline passes through a convex polygon.
     *
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    public function crosses(array $x, array $y): bool
    {
        return $this->crossesWithin($x, $y, min($x), min($y), max($x), max($y));
    }

    /**
     * The same for a polygon around which a rectangle is known.
     *
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    public function crossesWithin(array $x, array $y, float $left, float $top, float $right, float $bottom): bool
    {
        $corners = count($x);
        $first = $last = 0;
        if ($this->band !== INF) {
            $first = $top > $this->top ? (int) (($top - $this->top) / $this->band) : 0;
            $last = (int) ((($bottom < $this->bottom ? $bottom : $this->bottom) - $this->top) / $this->band);
        }
        for ($band = $first; $band <= $last; $band++) {
            foreach ($this->bands[$band] as $at) {
                $before = $at === 0 ? $this->corners - 1 : $at - 1;
                [$ax, $ay, $bx, $by] = [$this->x[$before], $this->y[$before], $this->x[$at], $this->y[$at]];
                if (
                    ($ax > $bx ? $ax : $bx) < $left ||
                    ($ax < $bx ? $ax : $bx) > $right ||
                    ($ay > $by ? $ay : $by) < $top ||
                    ($ay < $by ? $ay : $by) > $bottom
                ) {
                    continue;
                }
                if ($corners > 2 && self::holds($x, $y, $ax, $ay)) {
                    return true;
                }
                for ($to = 0, $from = $corners - 1; $to < $corners; $from = $to++) {
                    if (self::meet($ax, $ay, $bx, $by, $x[$from], $y[$from], $x[$to], $y[$to])) {
                        return true;
                    }
                }
            }
        }

        return false;
    }

    /** Whether the outline passes through an upright rectangle, or lies wholly in it. */
    public function crossesRectangle(float $left, float $top, float $right, float $bottom): bool
    {
        $xs = $this->x;
        $ys = $this->y;
        $first = $last = 0;
        if ($this->band !== INF) {
            $first = $top > $this->top ? (int) (($top - $this->top) / $this->band) : 0;
            $last = (int) ((($bottom < $this->bottom ? $bottom : $this->bottom) - $this->top) / $this->band);
        }
        for ($band = $first; $band <= $last; $band++) {
            foreach ($this->bands[$band] as $at) {
                $before = $at === 0 ? $this->corners - 1 : $at - 1;
                $ax = $xs[$before];
                $bx = $xs[$at];
                if (($ax > $bx ? $ax : $bx) < $left || ($ax < $bx ? $ax : $bx) > $right) {
                    continue;
                }
                $ay = $ys[$before];
                $by = $ys[$at];
                if (($ay > $by ? $ay : $by) < $top || ($ay < $by ? $ay : $by) > $bottom) {
                    continue;
                }
                // All four corners on one side of the line: it passes by.
                $x = $bx - $ax;
                $y = $by - $ay;
                $one = $x * ($top - $ay);
                $two = $x * ($bottom - $ay);
                $three = $y * ($left - $ax);
                $four = $y * ($right - $ax);
                if (
                    ! ($one > $three && $one > $four && $two > $three && $two > $four) &&
                    ! ($one < $three && $one < $four && $two < $three && $two < $four)
                ) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * Whether a convex polygon, turning either way, holds a place.
     *
     * @param non-empty-list<float> $x
     * @param non-empty-list<float> $y
     */
    private static function holds(array $x, array $y, float $px, float $py): bool
    {
        $way = 0;
        for ($to = 0, $count = count($x), $from = $count - 1; $to < $count; $from = $to++) {
            $turn = ($x[$to] - $x[$from]) * ($py - $y[$from]) - ($y[$to] - $y[$from]) * ($px - $x[$from]);
            if ($turn * $way < 0) {
                return false;
            }
            if ($turn != 0.0) {
                $way = $turn > 0 ? 1 : -1;
            }
        }

        return $way !== 0;
    }

    private static function meet(float $ax, float $ay, float $bx, float $by, float $cx, float $cy, float $dx, float $dy): bool
    {
        $one = ($bx - $ax) * ($cy - $ay) - ($by - $ay) * ($cx - $ax);
        $two = ($bx - $ax) * ($dy - $ay) - ($by - $ay) * ($dx - $ax);
        if ($one * $two > 0) {
            return false;
        }
        $three = ($dx - $cx) * ($ay - $cy) - ($dy - $cy) * ($ax - $cx);
        $four = ($dx - $cx) * ($by - $cy) - ($dy - $cy) * ($bx - $cx);

        return $three * $four <= 0 && ($one != $two || $three != $four);
    }
}
