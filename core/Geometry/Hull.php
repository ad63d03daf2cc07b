<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * The points of a mesh that can lie outermost in some direction: all that its extents depend on, however it is turned.
 *
 * Equal points are kept once. Of many, those are left out that lie inside the body between the outermost points of fourteen directions
 * (after S. G. Akl and G. T. Toussaint, "A fast convex hull algorithm", 1978): they can never be outermost.
 */
final class Hull
{
    /** So few points are not worth looking through. */
    private const FEW = 256;

    /** How far inside a point must lie to be left out, and outside to count as outside; in parts of the mesh's size. */
    private const MARGIN = 1e-7;

    private const DIRECTIONS = [[1, 0, 0], [0, 1, 0], [0, 0, 1], [1, 1, 1], [1, 1, -1], [1, -1, 1], [-1, 1, 1]];

    /**
     * @param list<string> $positions packed 32-bit floats, three per point
     *
     * @return string some of the points, packed likewise
     */
    public static function of(array $positions): string
    {
        $points = [];
        foreach ($positions as $packed) {
            $points += $packed === '' ? [] : array_flip(str_split($packed, 12));
        }
        // Keys that look like whole numbers have become numbers.
        $packed = implode('', array_keys($points));
        if (count($points) <= self::FEW) {
            return $packed;
        }
        /** @var list<float> $at */
        $at = array_values((array) unpack('g*', $packed));
        $faces = self::faces(self::outermost($at));

        return $faces === [] ? $packed : self::outside($packed, $at, $faces);
    }

    /**
     * @param list<float> $at
     *
     * @return non-empty-list<array{float, float, float}>
     */
    private static function outermost(array $at): array
    {
        $found = [];
        foreach (self::DIRECTIONS as [$a, $b, $c]) {
            $least = INF;
            $most = -INF;
            $first = $last = 0;
            for ($n = 0, $count = count($at); $n < $count; $n += 3) {
                $reach = $a * $at[$n] + $b * $at[$n + 1] + $c * $at[$n + 2];
                if ($reach < $least) {
                    $least = $reach;
                    $first = $n;
                }
                if ($reach > $most) {
                    $most = $reach;
                    $last = $n;
                }
            }
            $found[$first] = [$at[$first], $at[$first + 1], $at[$first + 2]];
            $found[$last] = [$at[$last], $at[$last + 1], $at[$last + 2]];
        }

        return array_values($found);
    }

    /**
     * The planes of all faces of the body between the points: those through three points that have all others behind them. A plane too many
     * leaves a point too many; none is missing.
     *
     * @param non-empty-list<array{float, float, float}> $points
     *
     * @return list<array{float, float, float, float}> unit normal outwards, and how far a point behind the plane may reach along it
     */
    private static function faces(array $points): array
    {
        $size = 0.0;
        foreach ($points as [$x, $y, $z]) {
            $size = max($size, abs($x - $points[0][0]), abs($y - $points[0][1]), abs($z - $points[0][2]));
        }
        $faces = [];
        foreach ($points as $i => $p) {
            for ($j = $i + 1; $j < count($points); $j++) {
                for ($k = $j + 1; $k < count($points); $k++) {
                    [$u, $v] = [self::minus($points[$j], $p), self::minus($points[$k], $p)];
                    $n = [$u[1] * $v[2] - $u[2] * $v[1], $u[2] * $v[0] - $u[0] * $v[2], $u[0] * $v[1] - $u[1] * $v[0]];
                    $long = sqrt($n[0] ** 2 + $n[1] ** 2 + $n[2] ** 2);
                    if ($long <= self::MARGIN * $size * $size) {
                        continue;
                    }
                    $n = [$n[0] / $long, $n[1] / $long, $n[2] / $long];
                    $reach = self::along($n, $p);
                    $reaches = array_map(static fn (array $point): float => self::along($n, $point) - $reach, $points);
                    if (max($reaches) <= self::MARGIN * $size) {
                        $faces[] = [...$n, $reach - self::MARGIN * $size];
                    }
                    if (min($reaches) >= -self::MARGIN * $size) {
                        $faces[] = [-$n[0], -$n[1], -$n[2], -$reach - self::MARGIN * $size];
                    }
                }
            }
        }

        return $faces;
    }

    /**
     * @param list<float>                             $at
     * @param list<array{float, float, float, float}> $faces
     */
    private static function outside(string $packed, array $at, array $faces): string
    {
        $left = '';
        for ($n = 0, $count = count($at); $n < $count; $n += 3) {
            foreach ($faces as [$a, $b, $c, $reach]) {
                if ($a * $at[$n] + $b * $at[$n + 1] + $c * $at[$n + 2] >= $reach) {
                    $left .= substr($packed, $n * 4, 12);
                    break;
                }
            }
        }

        return $left;
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     */
    private static function along(array $a, array $b): float
    {
        return $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function minus(array $a, array $b): array
    {
        return [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    }
}
