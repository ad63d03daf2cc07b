<?php

declare(strict_types=1);

namespace VineShelf\Tint;

/** The colours of legends that nobody has chosen. */
final class Hues
{
    /** The lightest, the middle and the heaviest of a scale. */
    private const SCALE = [[222, 226, 196], [150, 160, 84], [168, 60, 30]];

    /** One of a number of colours that are told apart well: hues by the golden angle, in three lightnesses, but none of the pick's. */
    public static function apart(int $index, int $of): string
    {
        $hue = fmod(0.96 + 0.74 * fmod(0.36 + $index * 0.381966, 1.0), 1.0);
        [$saturation, $value] = [[0.5, 0.78], [0.62, 0.58], [0.34, 0.88]][intdiv($index, max(1, min(9, $of))) % 3];
        $channel = static function (float $n) use ($hue, $saturation, $value): int {
            $k = fmod($n + $hue * 6, 6.0);

            return (int) round(255 * ($value - $value * $saturation * max(0.0, min($k, 4 - $k, 1.0))));
        };

        return sprintf('#%02x%02x%02x', $channel(5), $channel(3), $channel(1));
    }

    /** A place on the scale, from 0 for light to 1 for heavy. */
    public static function scale(float $share): string
    {
        [$from, $over, $to] = self::SCALE;
        [$a, $b, $t] = $share < 0.5 ? [$from, $over, $share * 2] : [$over, $to, $share * 2 - 1];

        return sprintf('#%02x%02x%02x', ...array_map(static fn (int $x, int $y): int => (int) round($x + ($y - $x) * $t), $a, $b));
    }
}
