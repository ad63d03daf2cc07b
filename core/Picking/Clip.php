<?php

declare(strict_types=1);

namespace VineShelf\Picking;

/** Cuts convex polygons (Sutherland and Hodgman, "Reentrant polygon clipping", 1974). */
final class Clip
{
    /**
     * The part of a convex polygon on one side of a line.
     *
     * @param list<float> $x
     * @param list<float> $y
     * @param bool        $left whether to keep the side on which a clockwise outline, seen with y downwards, has its inside
     *
     * @return array{list<float>, list<float>}
     */
    public static function half(array $x, array $y, float $ax, float $ay, float $bx, float $by, bool $left): array
    {
        $sign = $left ? 1.0 : -1.0;
        $keptX = $keptY = [];
        $count = count($x);
        $before = $count - 1;
        $was = $count === 0 ? 0.0 : $sign * (($bx - $ax) * ($y[$before] - $ay) - ($by - $ay) * ($x[$before] - $ax));
        for ($at = 0; $at < $count; $before = $at++) {
            $is = $sign * (($bx - $ax) * ($y[$at] - $ay) - ($by - $ay) * ($x[$at] - $ax));
            if ($is >= 0 !== $was >= 0) {
                $share = $was / ($was - $is);
                $keptX[] = $x[$before] + ($x[$at] - $x[$before]) * $share;
                $keptY[] = $y[$before] + ($y[$at] - $y[$before]) * $share;
            }
            if ($is >= 0) {
                $keptX[] = $x[$at];
                $keptY[] = $y[$at];
            }
            $was = $is;
        }

        return [$keptX, $keptY];
    }

    /**
     * Which part of a line a convex outline, clockwise as seen with y downwards, holds (Cyrus and Beck, 1978).
     *
     * @param list<float> $x
     * @param list<float> $y
     *
     * @return array{float, float}|null from 0 at (ax, ay) to 1 at (bx, by); null when it holds nothing of it
     */
    public static function stretch(array $x, array $y, float $ax, float $ay, float $bx, float $by): ?array
    {
        [$from, $to] = [0.0, 1.0];
        for ($at = 0, $count = count($x), $before = $count - 1; $at < $count; $before = $at++) {
            $one = ($x[$at] - $x[$before]) * ($ay - $y[$before]) - ($y[$at] - $y[$before]) * ($ax - $x[$before]);
            $two = ($x[$at] - $x[$before]) * ($by - $y[$before]) - ($y[$at] - $y[$before]) * ($bx - $x[$before]);
            if ($one < 0 && $two < 0) {
                return null;
            }
            if ($one < 0) {
                $from = max($from, $one / ($one - $two));
            } elseif ($two < 0) {
                $to = min($to, $one / ($one - $two));
            }
        }

        return $from <= $to ? [$from, $to] : null;
    }

    /**
     * What of a triangle, line or point is in front of the near plane, in the picture.
     *
     * @param list<float> $x before the division by $w, as are the following
     * @param list<float> $y
     * @param list<float> $w
     *
     * @return array{list<float>, list<float>} pixels
     */
    public static function near(array $x, array $y, array $w, float $near): array
    {
        $keptX = $keptY = [];
        $count = count($x);
        for ($at = 0, $before = $count - 1; $at < $count; $before = $at++) {
            if ($w[$at] >= $near !== $w[$before] >= $near) {
                $share = ($near - $w[$before]) / ($w[$at] - $w[$before]);
                $keptX[] = ($x[$before] + ($x[$at] - $x[$before]) * $share) / $near;
                $keptY[] = ($y[$before] + ($y[$at] - $y[$before]) * $share) / $near;
            }
            if ($w[$at] >= $near) {
                $keptX[] = $x[$at] / $w[$at];
                $keptY[] = $y[$at] / $w[$at];
            }
        }

        return [$keptX, $keptY];
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     */
    public static function area(array $x, array $y): float
    {
        $area = 0.0;
        for ($at = 0, $count = count($x), $before = $count - 1; $at < $count; $before = $at++) {
            $area += $x[$before] * $y[$at] - $x[$at] * $y[$before];
        }

        return abs($area) / 2;
    }
}
