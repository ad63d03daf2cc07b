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
     * Where each side passes through a band.
     *
     * @param int $band counted from the outline's top
     *
     * @return list<array{float, float}> least and greatest x
     */
    public function passes(int $band): array
    {
        $passes = [];
        $top = $this->top + $band * $this->band;
        foreach ($this->bands[$band] ?? [] as $at) {
            $before = $at === 0 ? $this->corners - 1 : $at - 1;
            [$ax, $ay, $bx, $by] = [$this->x[$before], $this->y[$before], $this->x[$at], $this->y[$at]];
            if ($ay === $by) {
                $passes[] = [min($ax, $bx), max($ax, $bx)];

                continue;
            }
            $from = $ax + ($bx - $ax) * max(0.0, min(1.0, ($top - $ay) / ($by - $ay)));
            $to = $ax + ($bx - $ax) * max(0.0, min(1.0, ($top + $this->band - $ay) / ($by - $ay)));
            $passes[] = [min($from, $to), max($from, $to)];
        }

        return $passes;
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
        foreach ($this->bands[$this->band === INF ? 0 : (int) floor(($y - $this->top) / $this->band)] ?? [] as $at) {
            $before = $at === 0 ? $this->corners - 1 : $at - 1;
            if (
                $this->y[$at] > $y !== $this->y[$before] > $y &&
                $x < (($this->x[$before] - $this->x[$at]) * ($y - $this->y[$at])) / ($this->y[$before] - $this->y[$at]) + $this->x[$at]
            ) {
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
        [$left, $right, $top, $bottom] = [min($x), max($x), min($y), max($y)];
        $corners = count($x);
        $first = $this->band === INF ? 0 : max(0, (int) floor(($top - $this->top) / $this->band));
        $last = $this->band === INF ? 0 : min(count($this->bands) - 1, (int) floor(($bottom - $this->top) / $this->band));
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
        $first = $this->band === INF ? 0 : max(0, (int) floor(($top - $this->top) / $this->band));
        $last = $this->band === INF ? 0 : min(count($this->bands) - 1, (int) floor(($bottom - $this->top) / $this->band));
        for ($band = $first; $band <= $last; $band++) {
            foreach ($this->bands[$band] as $at) {
                $before = $at === 0 ? $this->corners - 1 : $at - 1;
                $ax = $this->x[$before];
                $bx = $this->x[$at];
                if (($ax > $bx ? $ax : $bx) < $left || ($ax < $bx ? $ax : $bx) > $right) {
                    continue;
                }
                $ay = $this->y[$before];
                $by = $this->y[$at];
                if (($ay > $by ? $ay : $by) < $top || ($ay < $by ? $ay : $by) > $bottom) {
                    continue;
                }
                // All four corners on one side of the line: it passes by.
                $x = $bx - $ax;
                $y = $by - $ay;
                $one = $x * ($top - $ay) - $y * ($left - $ax);
                $two = $x * ($top - $ay) - $y * ($right - $ax);
                $three = $x * ($bottom - $ay) - $y * ($left - $ax);
                $four = $x * ($bottom - $ay) - $y * ($right - $ax);
                if (! ($one > 0 && $two > 0 && $three > 0 && $four > 0) && ! ($one < 0 && $two < 0 && $three < 0 && $four < 0)) {
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
