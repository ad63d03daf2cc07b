<?php

declare(strict_types=1);

namespace VineShelf\Picking;

/**
 * A closed outline in the picture; a place is inside when a line from it to far away crosses the outline an odd number of times.
 *
 * Other shapes are compared as convex polygons of one to four corners, given as flat lists of x and y.
 */
final readonly class Outline
{
    public float $left;

    public float $top;

    public float $right;

    public float $bottom;

    private int $corners;

    /**
     * @param non-empty-list<float> $x pixels
     * @param non-empty-list<float> $y pixels
     */
    public function __construct(public array $x, public array $y, public bool $isConvex = false)
    {
        $this->corners = count($x);
        [$this->left, $this->right, $this->top, $this->bottom] = [min($x), max($x), min($y), max($y)];
    }

    public function has(float $x, float $y): bool
    {
        $inside = false;
        for ($at = 0, $before = $this->corners - 1; $at < $this->corners; $before = $at++) {
            if (($this->y[$at] > $y) !== ($this->y[$before] > $y)
                && $x < ($this->x[$before] - $this->x[$at]) * ($y - $this->y[$at]) / ($this->y[$before] - $this->y[$at]) + $this->x[$at]) {
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
        for ($at = 0, $before = $this->corners - 1; $at < $this->corners; $before = $at++) {
            [$ax, $ay, $bx, $by] = [$this->x[$before], $this->y[$before], $this->x[$at], $this->y[$at]];
            if (max($ax, $bx) < $left || min($ax, $bx) > $right || max($ay, $by) < $top || min($ay, $by) > $bottom) {
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
