<?php

declare(strict_types=1);

namespace VineShelf\Picking;

/**
 * Thins what a hand has drawn to what a picture can show, so that a long stroke costs no more than a short one (Douglas and Peucker,
 * "Algorithms for the reduction of the number of points required to represent a digitized line", 1973).
 */
final class Stroke
{
    /** Pixels that a thinned stroke may be off. */
    public const NEAR = 0.4;

    /**
     * A stretch of more points than this is halved as well where the furthest point lies in its first or last sixteenth: no stroke takes
     * quadratic time.
     */
    private const LONG = 64;

    /**
     * @param non-empty-list<array{float, float}> $points pixels
     * @param int                                 $most   points to keep at most; only where that cannot be done otherwise the stroke may be
     *     off further
     *
     * @return non-empty-list<array{float, float}> some of the points, with the first and the last
     */
    public static function thinned(array $points, int $most): array
    {
        $points = self::apart($points);
        for ($near = self::NEAR; ; $near *= 4) {
            $kept = self::simplified($points, $near);
            if (count($kept) <= $most) {
                return $kept;
            }
            // What is left out once is left out with any larger distance; so the next round is shorter.
            $points = $kept;
        }
    }

    /**
     * Without points that stand on the one before.
     *
     * @param non-empty-list<array{float, float}> $points
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function apart(array $points): array
    {
        $kept = [$points[0]];
        [$x, $y] = $points[0];
        foreach ($points as $point) {
            if (abs($point[0] - $x) > 0.05 || abs($point[1] - $y) > 0.05) {
                $kept[] = $point;
                [$x, $y] = $point;
            }
        }

        return $kept;
    }

    /**
     * @param non-empty-list<array{float, float}> $points
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function simplified(array $points, float $near): array
    {
        $last = count($points) - 1;
        $keep = [0 => true, $last => true];
        $open = [[0, $last]];
        while (($stretch = array_pop($open)) !== null) {
            [$from, $to] = $stretch;
            [$far, $at] = self::furthest($points, $from, $to);
            if ($far > $near) {
                $keep[$at] = true;
                $margin = $to - $from > self::LONG ? intdiv($to - $from, 16) : 0;
                $cuts = [$from, $at, $to];
                if ($at - $from < $margin || $to - $at < $margin) {
                    $middle = intdiv($from + $to, 2);
                    $keep[$middle] = true;
                    $cuts = $at < $middle ? [$from, $at, $middle, $to] : [$from, $middle, $at, $to];
                }
                for ($cut = 1; $cut < count($cuts); $cut++) {
                    $open[] = [$cuts[$cut - 1], $cuts[$cut]];
                }
            }
        }
        ksort($keep);

        /** @var non-empty-list<array{float, float}> */
        return array_map(static fn (int $at): array => $points[$at], array_keys($keep));
    }

    /**
     * @param non-empty-list<array{float, float}> $points
     *
     * @return array{float, int} how far the point that is furthest from the line between two others is from it, and which it is
     */
    private static function furthest(array $points, int $from, int $to): array
    {
        [$ax, $ay] = $points[$from];
        [$dx, $dy] = [$points[$to][0] - $ax, $points[$to][1] - $ay];
        $length = $dx * $dx + $dy * $dy;
        $far = 0.0;
        $found = $from;
        for ($at = $from + 1; $at < $to; $at++) {
            [$px, $py] = [$points[$at][0] - $ax, $points[$at][1] - $ay];
            $along = $length > 0 ? max(0.0, min(1.0, ($px * $dx + $py * $dy) / $length)) : 0.0;
            $off = ($px - $along * $dx) ** 2 + ($py - $along * $dy) ** 2;
            if ($off > $far) {
                [$far, $found] = [$off, $at];
            }
        }

        return [sqrt($far), $found];
    }
}
