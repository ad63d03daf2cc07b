<?php

declare(strict_types=1);

namespace App\Lighten;

use VineShelf\Facts\Facts;
use VineShelf\Lighten\Drawing;
use VineShelf\Lighten\VersionedShapes;
use VineShelf\Picking\Camera;
use VineShelf\Scene\Bits;
use VineShelf\Section\Plane;

/** Small pictures through cameras as views keep them. */
final class Looking
{
    /** Metres in front of an eye where a picture begins. */
    private const NEAR = 0.05;

    /**
     * @param array<string, mixed> $camera    from the origin of the scene; "width" and "height" of the canvas, 16 to 10 when not known
     * @param int                  $wide      pixels of the picture
     * @param list<Plane>          $planes    that cut
     * @param Bits|null            $across    rows that they go through
     * @param int                  $triangles that may be drawn
     */
    public static function from(
        Facts $facts,
        array $camera,
        int $wide,
        VersionedShapes $shapes,
        array $planes = [],
        ?Bits $across = null,
        int $triangles = 250_000,
    ): Drawing {
        [$ox, $oy, $oz] = $facts->origin();
        /**
         * @var array{
         *     eye: array{float, float, float}, target: array{float, float, float}, fov?: float, tall?: float,
         *     up?: array{float, float, float}, width?: float, height?: float
         * } $camera
         */
        $shape = max(0.2, min(5.0, ($camera['height'] ?? 10.0) / max(1e-6, $camera['width'] ?? 16.0)));
        $high = max(8, (int) round($wide * $shape));
        $place = static fn (array $at): array => [$at[0] + $ox, $at[1] + $oy, $at[2] + $oz];
        [$eye, $target, $up] = [$place($camera['eye']), $place($camera['target']), $camera['up'] ?? [0.0, 0.0, 1.0]];

        return new Drawing(
            $facts,
            isset($camera['tall'])
                ? Camera::parallel($eye, $target, $up, $camera['tall'], $wide, $high)
                : Camera::perspective($eye, $target, $up, $camera['fov'] ?? 45.0, $wide, $high, self::NEAR),
            $wide,
            $high,
            $shapes,
            $planes,
            $across,
            $triangles,
        );
    }
}
