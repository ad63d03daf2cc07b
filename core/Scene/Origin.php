<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * What is taken off all places of a model that stands far from zero, so that floats keep their millimetres: where most of it is, whatever
 * single objects have gone astray.
 */
final class Origin
{
    /** Up to this far from zero floats are exact to a sixteenth of a millimetre, and places stay as they are; metres. */
    private const NEAR = 1000.0;

    private const SOME = 4000;

    /** How many objects of a model to go on by to look at some of them. */
    public static function step(int $objects): int
    {
        return max(1, intdiv($objects, self::SOME));
    }

    /**
     * @param list<array{float, float, float}> $middles of objects, metres
     *
     * @return array{float, float, float} metres
     */
    public static function of(array $middles): array
    {
        if ($middles === []) {
            return [0.0, 0.0, 0.0];
        }
        $origin = array_map(static function (int $axis) use ($middles): float {
            $places = array_filter(array_column($middles, $axis), is_finite(...));
            sort($places);

            return round($places[intdiv(count($places), 2)] ?? 0.0, -2);
        }, [0, 1, 2]);

        return max(array_map(abs(...), $origin)) < self::NEAR ? [0.0, 0.0, 0.0] : $origin;
    }
}
