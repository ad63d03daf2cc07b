<?php

declare(strict_types=1);

namespace VineShelf\Views;

/**
 * A camera that goes around what it looks at, at the same height and distance.
 *
 * @phpstan-type Camera array{eye: list<float>, target: list<float>, fov: float, tall?: float, up?: list<float>, aspect?: float}
 */
final class Around
{
    public const MOST = 72;

    /**
     * @param Camera $camera
     * @param int    $count  how many, from 2 to {@see self::MOST}
     *
     * @return list<array{int, Camera}> whole degrees that it has gone, against the clock as seen from above, and the camera; the first is
     *     the one given
     */
    public static function cameras(array $camera, int $count): array
    {
        [$x, $y] = $camera['target'];
        [$east, $north] = [$camera['eye'][0] - $x, $camera['eye'][1] - $y];
        $cameras = [];
        for ($step = 0; $step < $count; $step++) {
            $angle = (2 * M_PI * $step) / $count;
            [$cos, $sin] = [cos($angle), sin($angle)];
            $there = $camera;
            $there['eye'] = [$x + $east * $cos - $north * $sin, $y + $east * $sin + $north * $cos, $camera['eye'][2]];
            $cameras[] = [(int) round((360 * $step) / $count), $there];
        }

        return $cameras;
    }
}
