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
        $halves = $middles = [];
        foreach ($meshBoxes as $mesh => $box) {
            if (! $box->isEmpty()) {
                [$halves[$mesh], $middles[$mesh]] = [$box->halves(), $box->middle()];
            }
        }
        $exact = new Box;
        $rows = [];
        /** @var array{list<float>, list<float>, list<float>, list<float>, list<float>, list<float>} $reaches by side */
        $reaches = [[], [], [], [], [], []];
        for ($row = 1, $count = $objects->count(); $row <= $count; $row++) {
            $mesh = $objects->meshes[$row];
            if (! isset($halves[$mesh])) {
                continue;
            }
            [[$hx, $hy, $hz], [$mx, $my, $mz]] = [$halves[$mesh], $middles[$mesh]];
            foreach ($objects->placements($row) as $index => $m) {
                // As Box::transformed() has it, without a box for each: most lie within what is known, and are done with.
                $x = $m[0] * $mx + $m[1] * $my + $m[2] * $mz + $m[3];
                $y = $m[4] * $mx + $m[5] * $my + $m[6] * $mz + $m[7];
                $z = $m[8] * $mx + $m[9] * $my + $m[10] * $mz + $m[11];
                $ex = abs($m[0]) * $hx + abs($m[1]) * $hy + abs($m[2]) * $hz;
                $ey = abs($m[4]) * $hx + abs($m[5]) * $hy + abs($m[6]) * $hz;
                $ez = abs($m[8]) * $hx + abs($m[9]) * $hy + abs($m[10]) * $hz;
                if (
                    $x - $ex >= $exact->minX && $x + $ex <= $exact->maxX
                    && $y - $ey >= $exact->minY && $y + $ey <= $exact->maxY
                    && $z - $ez >= $exact->minZ && $z + $ez <= $exact->maxZ
                ) {
                    continue;
                }
                if (self::alongAxes($m)) {
                    $exact = $exact->with(new Box($x - $ex, $y - $ey, $z - $ez, $x + $ex, $y + $ey, $z + $ez));

                    continue;
                }
                $rows[] = ($row << 32) | $index;
                foreach ([$x - $ex, $y - $ey, $z - $ez, $x + $ex, $y + $ey, $z + $ez] as $side => $reach) {
                    $reaches[$side][] = $reach;
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
