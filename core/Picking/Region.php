<?php

declare(strict_types=1);

namespace VineShelf\Picking;

/**
 * A part of the picture: one outline, or several convex ones together, as a brush leaves them.
 *
 * Most questions are answered by {@see RegionGrid}; only what falls on its mixed cells is compared with the outlines themselves.
 */
final class Region
{
    public const OUT = 0;

    public const MIXED = 1;

    public const IN = 2;

    public readonly float $left;

    public readonly float $top;

    /** Whether all that has its corners in the region lies in it. */
    public readonly bool $isConvex;

    public readonly RegionGrid $grid;

    /** @param non-empty-list<Outline> $outlines more than one only if all are convex */
    private function __construct(private readonly array $outlines)
    {
        $this->grid = new RegionGrid($outlines);
        $this->left = $this->grid->left;
        $this->top = $this->grid->top;
        $this->isConvex = count($outlines) === 1 && $outlines[0]->isConvex();
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
        return $this->grid->rectangleIs($left, $top, $right, $bottom);
    }

    /** @return array{float, float, float, float}|null a rectangle around what of the region lies in another one; null for nothing */
    public function within(float $left, float $top, float $right, float $bottom): ?array
    {
        return $this->grid->reached($left, $top, $right, $bottom);
    }

    /** How a rectangle lies to the region, and MIXED only where its edge really passes through the rectangle. */
    public function rectangleIsExactly(float $left, float $top, float $right, float $bottom): int
    {
        $is = $this->grid->rectangleIs($left, $top, $right, $bottom);

        return $is === self::MIXED ? $this->mixedIs($left, $top, $right, $bottom) : $is;
    }

    /** The same, for one of which the grid has said that it is mixed. */
    public function mixedIs(float $left, float $top, float $right, float $bottom): int
    {
        $is = self::OUT;
        foreach ($this->grid->outlinesAround($left, $top, $right, $bottom) as $outline) {
            if (! $outline->meets($left, $top, $right, $bottom)) {
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
        $through = $this->grid->at($x, $y);
        if (! is_array($through)) {
            return $through === self::IN;
        }
        foreach ($through as $outline) {
            if ($outline->has($x, $y)) {
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
        foreach ($this->grid->outlinesAround($left, $top, $right, $bottom) as $outline) {
            if ($outline->meets($left, $top, $right, $bottom) && $outline->touches($x, $y)) {
                return true;
            }
        }

        return false;
    }

    /**
     * Whether a triangle none of whose corners is in the region has any place in common with it.
     *
     * @param array{float, float, float} $x
     * @param array{float, float, float} $y
     */
    public function crosses(array $x, array $y): bool
    {
        [$x1, $x2, $x3] = $x;
        [$y1, $y2, $y3] = $y;
        // Comparing is quicker than calling min() and max().
        $left = $x1 < $x2 ? ($x1 < $x3 ? $x1 : $x3) : ($x2 < $x3 ? $x2 : $x3);
        $top = $y1 < $y2 ? ($y1 < $y3 ? $y1 : $y3) : ($y2 < $y3 ? $y2 : $y3);
        $right = $x1 > $x2 ? ($x1 > $x3 ? $x1 : $x3) : ($x2 > $x3 ? $x2 : $x3);
        $bottom = $y1 > $y2 ? ($y1 > $y3 ? $y1 : $y3) : ($y2 > $y3 ? $y2 : $y3);
        if ($this->grid->rectangleIs($left, $top, $right, $bottom) === self::OUT) {
            return false;
        }
        foreach ($this->grid->outlinesAround($left, $top, $right, $bottom) as $outline) {
            if ($outline->meets($left, $top, $right, $bottom) && $outline->crossesWithin($x, $y, $left, $top, $right, $bottom)) {
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
        $around = $this->grid->outlinesAround($left, $top, $right, $bottom);
        foreach ($around as $outline) {
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

        return Clip::area($x, $y) < 1e-6 ? $this->coversLine($x, $y) : self::isUsedUp(array_values($around), 0, $x, $y);
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
}
