<?php

declare(strict_types=1);

namespace VineShelf\Views;

/** Which way is up in a picture: cameras stand upright unless they say otherwise. */
final class Upright
{
    /** Radians that count as upright. */
    private const LEAST = 1e-4;

    /**
     * Up of a camera that does not lean to a side, a unit vector. Looking straight down or up, that is where y points.
     *
     * @param array{float, float, float} $way unit vector
     *
     * @return array{float, float, float}
     */
    public static function of(array $way): array
    {
        $along = hypot($way[0], $way[1]);

        return $along < 1e-9
            ? [0.0, 1.0, 0.0]
            : [(-$way[2] * $way[0]) / $along, (-$way[2] * $way[1]) / $along, $along];
    }

    /**
     * Whether a camera stands upright.
     *
     * @param array{float, float, float} $way unit vector
     * @param array{float, float, float} $up  any length; what of it goes along the way does not count
     */
    public static function is(array $way, array $up): bool
    {
        $along = $way[0] * $up[0] + $way[1] * $up[1] + $way[2] * $up[2];
        $across = [$up[0] - $along * $way[0], $up[1] - $along * $way[1], $up[2] - $along * $way[2]];
        $length = hypot($across[0], hypot($across[1], $across[2]));
        if ($length < 1e-9) {
            return true;
        }
        $upright = self::of($way);
        $cosine = ($across[0] * $upright[0] + $across[1] * $upright[1] + $across[2] * $upright[2]) / $length;

        return $cosine > cos(self::LEAST);
    }
}
