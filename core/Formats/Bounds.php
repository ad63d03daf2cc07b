<?php

declare(strict_types=1);

namespace VineShelf\Formats;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;

/**
 * The box around everything that is drawn, exact to the vertices.
 *
 * Boxes of turned meshes are too large, so on each of the six sides the placements are tried from the outermost inwards, with
 * their vertices, until no untried box reaches beyond what was found. That is a handful of meshes, not all of them.
 *
 * @phpstan-import-type Transform from Affine
 */
final class Bounds
{
    /** @param array<int, Box> $meshBoxes box in the mesh's own axes by mesh */
    public static function of(Intake $intake, array $meshBoxes): Box
    {
        $objects = $intake->objects();
        $exact = new Box;
        /** @var list<array{int, Transform}> $turned */
        $turned = [];
        /** @var list<Box> $loose */
        $loose = [];
        for ($row = 1; $row <= $objects->count(); $row++) {
            $mesh = $objects->meshes[$row];
            if ($mesh < 0 || ! isset($meshBoxes[$mesh]) || $meshBoxes[$mesh]->isEmpty()) {
                continue;
            }
            foreach ($objects->placements($row) as $placement) {
                $box = $meshBoxes[$mesh]->transformed($placement);
                if (self::alongAxes($placement)) {
                    $exact = $exact->with($box);
                } else {
                    $turned[] = [$mesh, $placement];
                    $loose[] = $box;
                }
            }
        }
        foreach (['minX', 'minY', 'minZ', 'maxX', 'maxY', 'maxZ'] as $side) {
            $sign = str_starts_with($side, 'min') ? 1 : -1;
            $reach = array_map(static fn (Box $box): float => $sign * $box->$side, $loose);
            asort($reach);
            foreach ($reach as $index => $value) {
                if ($value >= $sign * $exact->$side) {
                    break;
                }
                [$mesh, $placement] = $turned[$index];
                foreach ($intake->primitives($mesh) as $primitive) {
                    $exact = $exact->with(Box::aroundTransformed($primitive->positions, $placement));
                }
            }
        }

        return $exact;
    }

    /** @param Transform $m */
    private static function alongAxes(array $m): bool
    {
        foreach ([0, 4, 8] as $row) {
            $used = 0;
            for ($column = 0; $column < 3; $column++) {
                $used += abs($m[$row + $column]) > 1e-9 ? 1 : 0;
            }
            if ($used > 1) {
                return false;
            }
        }

        return true;
    }
}
