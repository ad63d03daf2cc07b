<?php

declare(strict_types=1);

namespace VineShelf\Weights;

/**
 * Rectangles whose areas are as numbers are, filling a rectangle, each as near to a square as can be (M. Bruls, K. Huizing and J. J. van
 * Wijk, "Squarified treemaps", 2000).
 */
final class TreeMap
{
    /**
     * @param array<array-key, int|float> $values what each is worth; those that are worth nothing get no rectangle
     *
     * @return array<array-key, array{float, float, float, float}> left, top, width and height, the greatest first
     */
    public static function of(array $values, float $width, float $height): array
    {
        $values = array_filter($values, static fn (int|float $value): bool => $value > 0);
        arsort($values);
        $sum = array_sum($values);
        if ($sum <= 0 || $width <= 0 || $height <= 0) {
            return [];
        }
        $scale = ($width * $height) / $sum;
        $areas = array_map(static fn (int|float $value): float => $value * $scale, $values);
        $laid = [];
        [$left, $top, $wide, $tall] = [0.0, 0.0, $width, $height];
        while ($areas !== []) {
            $row = self::row($areas, min($wide, $tall));
            $areas = array_slice($areas, count($row), null, true);
            $thick = array_sum($row) / max(1e-12, min($wide, $tall));
            $along = 0.0;
            foreach ($row as $key => $area) {
                $long = $area / max(1e-12, $thick);
                $laid[$key] = $wide >= $tall ? [$left, $top + $along, $thick, $long] : [$left + $along, $top, $long, $thick];
                $along += $long;
            }
            if ($wide >= $tall) {
                [$left, $wide] = [$left + $thick, $wide - $thick];
            } else {
                [$top, $tall] = [$top + $thick, $tall - $thick];
            }
        }

        return $laid;
    }

    /**
     * How many of the greatest go beside each other along a side: as long as the least square of them becomes more so.
     *
     * @param non-empty-array<array-key, float> $areas the greatest first
     *
     * @return non-empty-array<array-key, float>
     */
    private static function row(array $areas, float $side): array
    {
        $row = [];
        $worst = INF;
        $sum = 0.0;
        $greatest = reset($areas);
        foreach ($areas as $key => $area) {
            $sum += $area;
            // The first is the greatest, the last one the least.
            $next = max(($side * $side * $greatest) / ($sum * $sum), ($sum * $sum) / ($side * $side * $area));
            if ($row !== [] && $next > $worst) {
                break;
            }
            $row[$key] = $area;
            $worst = $next;
        }

        return $row;
    }
}
