<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

/**
 * How far two surfaces are apart: from every place of either, the way to the other, the longest of all (the Hausdorff distance). So what
 * went counts, and so does what was filled.
 *
 * Within a triangle the distance from one triangle of the other surface is convex, hence nowhere greater than at its corners; and it
 * changes by no more than one goes. Both bound it from above, distances that were measured bound it from below. Triangles whose upper
 * bound is highest are divided until it is near the lower one (N. Aspert and others, "MESH: measuring errors between surfaces using the
 * Hausdorff distance", 2002, with bounds in place of samples): by turns where they leave what stands over the nearest triangle, so that
 * flat surfaces that are only cut otherwise are soon known as the same, and in halves.
 *
 * @phpstan-type Triangle array{array{float, float, float}, array{float, float, float}, array{float, float, float}}
 */
final readonly class Deviation
{
    /** The upper bound is at most so many times the lower one, */
    private const NEAR = 1.4;

    /** or this, metres, */
    private const FLOOR = 1e-4;

    /** unless so many were divided for each that the surfaces have, and for all together. */
    private const DIVIDED_EACH = 4;
    private const DIVIDED = 2000;

    private function __construct(
        /** Metres: no place is farther away from the other surface. INF where one surface is empty, and only one. */
        public float $most,
        /** Metres: some place is as far away. */
        public float $least,
    ) {}

    public static function between(TriangleTree $one, TriangleTree $other): self
    {
        $there = self::from($one, $other);
        $back = self::from($other, $one, $there->least);

        return new self(max($there->most, $back->most), max($there->least, $back->least));
    }

    /** From every place of one surface to the other, and not back. @param float $least metres below which nothing matters */
    public static function from(TriangleTree $one, TriangleTree $other, float $least = 0.0): self
    {
        if ($one->triangles === []) {
            return new self(0.0, 0.0);
        }
        if ($other->triangles === []) {
            return new self(INF, INF);
        }
        $least *= $least;
        $matters = static function (float $most) use (&$least): bool {
            return $most > max(self::NEAR ** 2 * $least, self::FLOOR ** 2);
        };
        $open = new \SplPriorityQueue;
        $done = 0.0;
        $hint = -1;
        foreach ($one->triangles as $triangle) {
            [$nearest, $most] = [[], INF];
            foreach ($triangle as $corner) {
                [$square, $hint] = $other->nearest($corner, $hint);
                $least = max($least, $square);
                $nearest[$hint] = true;
            }
            foreach (array_keys($nearest) as $at) {
                $most = min($most, self::farthestCorner($triangle, $other->triangles[$at]));
            }
            $matters($most) ? $open->insert([$triangle, $hint, $most, 0], $most) : $done = max($done, $most);
        }
        $divisions = self::DIVIDED + self::DIVIDED_EACH * (count($one->triangles) + count($other->triangles));
        while (! $open->isEmpty()) {
            /** @var array{Triangle, int, float, int} $of */
            $of = $open->extract();
            [$triangle, $hint, $most, $cuts] = $of;
            $done = ! $matters($most) || $divisions-- <= 0 ? max($done, $most) : $done;
            if ($done >= $most) {
                break;
            }
            $middle = self::middle($triangle);
            [$square, $hint] = $other->nearest($middle, $hint);
            $least = max($least, $square);
            $around = sqrt(self::farthestCorner($triangle, [$middle, $middle, $middle]));
            $most = min($most, self::farthestCorner($triangle, $other->triangles[$hint]), (sqrt($square) + $around) ** 2);
            if (! $matters($most)) {
                $done = max($done, $most);

                continue;
            }
            $nearest = $other->triangles[$hint];
            foreach ($cuts % 4 === 3 ? self::halves($triangle) : self::parts($triangle, $nearest) as $part) {
                $bound = min($most, self::farthestCorner($part, $nearest));
                $matters($bound) ? $open->insert([$part, $hint, $bound, $cuts + 1], $bound) : $done = max($done, $bound);
            }
        }

        return new self(sqrt(max($done, $least)), sqrt($least));
    }

    /**
     * How much of one surface is farther from the other than so many metres. Triangles are halved until all of them are on one side, or
     * they are so small that it does not matter.
     *
     * @param float $fine metres across, below which a triangle is judged by its middle
     *
     * @return float square metres
     */
    public static function areaBeyond(TriangleTree $one, TriangleTree $other, float $metres, float $fine): float
    {
        $area = 0.0;
        foreach ($one->triangles as $whole) {
            $open = [[$whole, -1]];
            while ($open !== []) {
                [$triangle, $hint] = array_pop($open);
                $middle = self::middle($triangle);
                [$square, $hint] = $other->nearest($middle, $hint);
                $around = sqrt(self::farthestCorner($triangle, [$middle, $middle, $middle]));
                $distance = sqrt($square);
                if ($distance - $around > $metres || (2 * $around <= $fine && $distance > $metres)) {
                    $area += self::area($triangle);
                } elseif (2 * $around > $fine && self::farthestCorner($triangle, $other->triangles[$hint]) > $metres ** 2) {
                    foreach (self::halves($triangle) as $half) {
                        $open[] = [$half, $hint];
                    }
                }
            }
        }

        return $area;
    }

    /**
     * @param Triangle $triangle
     * @param Triangle $other
     *
     * @return float square of the distance of the corner that is farthest from the other triangle
     */
    private static function farthestCorner(array $triangle, array $other): float
    {
        [$a, $b, $c] = $other;

        return max(
            Distance::square($triangle[0], $a, $b, $c),
            Distance::square($triangle[1], $a, $b, $c),
            Distance::square($triangle[2], $a, $b, $c),
        );
    }

    /**
     * @param Triangle $triangle
     *
     * @return array{float, float, float}
     */
    private static function middle(array $triangle): array
    {
        [$a, $b, $c] = $triangle;

        return [($a[0] + $b[0] + $c[0]) / 3, ($a[1] + $b[1] + $c[1]) / 3, ($a[2] + $b[2] + $c[2]) / 3];
    }

    /**
     * What of a triangle stands over another, and what does not; halves where all or nothing does.
     *
     * @param Triangle $triangle
     * @param Triangle $nearest
     *
     * @return list<Triangle>
     */
    private static function parts(array $triangle, array $nearest): array
    {
        [$p, $q, $r] = $nearest;
        [$ux, $uy, $uz] = [$q[0] - $p[0], $q[1] - $p[1], $q[2] - $p[2]];
        [$vx, $vy, $vz] = [$r[0] - $p[0], $r[1] - $p[1], $r[2] - $p[2]];
        [$nx, $ny, $nz] = [$uy * $vz - $uz * $vy, $uz * $vx - $ux * $vz, $ux * $vy - $uy * $vx];
        $over = $triangle;
        $parts = [];
        for ($at = 0; $at < 3; $at++) {
            [$from, $to] = [$nearest[$at], $nearest[($at + 1) % 3]];
            [$ex, $ey, $ez] = [$to[0] - $from[0], $to[1] - $from[1], $to[2] - $from[2]];
            // Upright on the other triangle, through one of its edges; its inside is where this is positive.
            [$wx, $wy, $wz] = [$ny * $ez - $nz * $ey, $nz * $ex - $nx * $ez, $nx * $ey - $ny * $ex];
            $long = sqrt($wx * $wx + $wy * $wy + $wz * $wz);
            $inside = [];
            foreach ($over as [$x, $y, $z]) {
                $inside[] = $long > 0 ? (($x - $from[0]) * $wx + ($y - $from[1]) * $wy + ($z - $from[2]) * $wz) / $long : 0.0;
            }
            /** @var non-empty-list<float> $inside */
            if (min($inside) >= -self::FLOOR / 2) {
                continue;
            }
            if (max($inside) <= self::FLOOR / 2) {
                return self::halves($triangle);
            }
            [$over, $beside] = self::cut($over, $inside);
            array_push($parts, ...self::fan($beside));
        }

        return $parts === [] ? self::halves($triangle) : [...$parts, ...self::fan($over)];
    }

    /**
     * What is above a plane of a convex polygon, and what is below.
     *
     * @param list<array{float, float, float}> $polygon
     * @param list<float>                      $above   metres, of each corner
     *
     * @return array{list<array{float, float, float}>, list<array{float, float, float}>}
     */
    private static function cut(array $polygon, array $above): array
    {
        $sides = [[], []];
        foreach ($polygon as $at => $corner) {
            $next = ($at + 1) % count($polygon);
            $sides[$above[$at] >= 0 ? 0 : 1][] = $corner;
            if (($above[$at] >= 0) !== ($above[$next] >= 0)) {
                $share = $above[$at] / ($above[$at] - $above[$next]);
                $other = $polygon[$next];
                $sides[0][] = $sides[1][] = [
                    $corner[0] + $share * ($other[0] - $corner[0]),
                    $corner[1] + $share * ($other[1] - $corner[1]),
                    $corner[2] + $share * ($other[2] - $corner[2]),
                ];
            }
        }

        return $sides;
    }

    /**
     * @param list<array{float, float, float}> $polygon convex
     *
     * @return list<Triangle>
     */
    private static function fan(array $polygon): array
    {
        $triangles = [];
        for ($at = 2; $at < count($polygon); $at++) {
            $triangles[] = [$polygon[0], $polygon[$at - 1], $polygon[$at]];
        }

        return $triangles;
    }

    /**
     * Both sides of the line from the middle of the longest edge to the corner before it.
     *
     * @param Triangle $triangle
     *
     * @return list<Triangle>
     */
    private static function halves(array $triangle): array
    {
        [$longest, $from] = [-1.0, 0];
        for ($at = 0; $at < 3; $at++) {
            [$a, $b] = [$triangle[$at], $triangle[($at + 1) % 3]];
            $square = ($a[0] - $b[0]) ** 2 + ($a[1] - $b[1]) ** 2 + ($a[2] - $b[2]) ** 2;
            [$longest, $from] = $square > $longest ? [$square, $at] : [$longest, $from];
        }
        [$a, $b, $c] = [$triangle[$from], $triangle[($from + 1) % 3], $triangle[($from + 2) % 3]];
        $middle = [($a[0] + $b[0]) / 2, ($a[1] + $b[1]) / 2, ($a[2] + $b[2]) / 2];

        return [[$a, $middle, $c], [$middle, $b, $c]];
    }

    /** @param Triangle $triangle */
    private static function area(array $triangle): float
    {
        [$a, $b, $c] = $triangle;
        [$ux, $uy, $uz] = [$b[0] - $a[0], $b[1] - $a[1], $b[2] - $a[2]];
        [$vx, $vy, $vz] = [$c[0] - $a[0], $c[1] - $a[1], $c[2] - $a[2]];

        return 0.5 * sqrt(($uy * $vz - $uz * $vy) ** 2 + ($uz * $vx - $ux * $vz) ** 2 + ($ux * $vy - $uy * $vx) ** 2);
    }
}
