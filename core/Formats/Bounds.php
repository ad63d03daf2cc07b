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
    /**
     * Placements along the axes are exact by their boxes. Of turned ones only those are looked at point by point whose loose box reaches
     * furthest, one after the other, until no loose box reaches beyond what is exact.
     *
     * @param array<int, Box> $meshBoxes box in the mesh's own axes by mesh
     */
    public static function of(Intake $intake, array $meshBoxes): Box
    {
        $objects = $intake->objects();
        $exact = new Box;
        $rows = [];
        /** @var array{list<float>, list<float>, list<float>, list<float>, list<float>, list<float>} $reaches by side */
        $reaches = [[], [], [], [], [], []];
        for ($row = 1; $row <= $objects->count(); $row++) {
            $mesh = $objects->meshes[$row];
            if ($mesh < 0 || ! isset($meshBoxes[$mesh]) || $meshBoxes[$mesh]->isEmpty()) {
                continue;
            }
            foreach ($objects->placements($row) as $index => $placement) {
                $box = $meshBoxes[$mesh]->transformed($placement);
                if (self::alongAxes($placement)) {
                    $exact = $exact->with($box);
                } else {
                    $rows[] = ($row << 32) | $index;
                    $reaches[0][] = $box->minX;
                    $reaches[1][] = $box->minY;
                    $reaches[2][] = $box->minZ;
                    $reaches[3][] = $box->maxX;
                    $reaches[4][] = $box->maxY;
                    $reaches[5][] = $box->maxZ;
                }
            }
        }
        foreach ([0, 1, 2, 3, 4, 5] as $side) {
            while (($at = self::furthest($reaches[$side], $side < 3, $exact->toList()[$side])) !== null) {
                $row = $rows[$at] >> 32;
                $placement = $objects->placements($row)[$rows[$at] & 0xffffffff];
                foreach ($intake->primitives($objects->meshes[$row]) as $primitive) {
                    $exact = $exact->with(Box::aroundTransformed($primitive->positions, $placement));
                }
                $reaches[$side][$at] = $side < 3 ? INF : -INF;
            }
        }

        return $exact;
    }

    /**
     * @param array<int, float> $reaches
     *
     * @return int|null the place of the one that reaches furthest, null when none reaches beyond $exact
     */
    private static function furthest(array $reaches, bool $least, float $exact): ?int
    {
        if ($reaches === []) {
            return null;
        }
        $most = $least ? min($reaches) : max($reaches);
        if ($least ? $most >= $exact : $most <= $exact) {
            return null;
        }

        return (int) array_search($most, $reaches, true);
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
