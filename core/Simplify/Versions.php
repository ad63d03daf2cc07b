<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

use VineShelf\Geometry\PackedShape;

/** The coarser versions that a mesh is given, the finest first: half of its triangles, then a fifth, and so on. */
final class Versions
{
    /** Meshes with fewer triangles have none: a box has twelve. */
    public const LEAST = 16;

    /** A version has at most this share of the triangles of the one before, or it is none. */
    private const WORTH = 0.7;

    /** A version is to have this share of the triangles of the one before; the first one half. */
    private const STEP = 0.4;

    private const MOST = 6;

    /** What is farther off than this share of its reach looks like something else. */
    private const ROUGH = 0.25;

    /** A version of which nothing is farther off than this share of its reach does for the rung Coarse. */
    private const COARSE = 0.03;

    /** @return list<Version> by the careful kind */
    public static function careful(PackedShape $mesh): array
    {
        $surface = Surface::of($mesh->shape());
        $collapsing = new Collapsing($surface);

        return self::made($mesh, static function (int $triangles) use ($mesh, $surface, $collapsing): Version {
            $version = $collapsing->until($triangles);

            return new Version(Dressing::of($mesh, $surface, $version), $version->triangles, $version->error);
        });
    }

    /** @return list<Version> by the fast kind, each made of the one before */
    public static function fast(PackedShape $mesh): array
    {
        $before = new Version($mesh, $mesh->triangles(), 0.0);
        $cell = 0.0;

        return self::made($mesh, static function (int $triangles) use (&$before, &$cell): Version {
            $surface = Surface::of($before->shape->shape());
            // As wide as a triangle would be if all were equal.
            $cell = max(1.5 * $cell, 1.2 * sqrt(self::area($surface) / max(1, $triangles)));
            $version = Clustering::of($surface, $cell);

            return $before = new Version(
                Dressing::of($before->shape, $surface, $version),
                $version->triangles,
                $before->error + $version->error,
            );
        });
    }

    /**
     * Which version does for the rung Coarse: the coarsest that still looks like the mesh from where it fills the canvas, or the finest.
     *
     * @param list<float> $errors of the versions, metres
     * @param float       $reach  of the mesh, metres
     *
     * @return int from 1 on, 0 where there is none
     */
    public static function coarse(array $errors, float $reach): int
    {
        $coarse = $errors === [] ? 0 : 1;
        foreach ($errors as $at => $error) {
            if ($error <= self::COARSE * $reach) {
                $coarse = $at + 1;
            }
        }

        return $coarse;
    }

    /**
     * @param \Closure(int): Version $until a version with about so many triangles
     *
     * @return list<Version>
     */
    private static function made(PackedShape $mesh, \Closure $until): array
    {
        $versions = [];
        $whole = $before = $mesh->triangles();
        if ($whole < self::LEAST) {
            return [];
        }
        for ($goal = intdiv($whole, 2); count($versions) < self::MOST && $goal >= 2; $goal = (int) ($goal * self::STEP)) {
            $version = $until($goal);
            if ($version->triangles > self::WORTH * $before) {
                continue;
            }
            if ($version->triangles < 2 || $version->error > self::ROUGH * $mesh->reach()) {
                break;
            }
            $versions[] = $version;
            $before = $version->triangles;
        }

        return $versions;
    }

    /** Square metres. */
    private static function area(Surface $surface): float
    {
        [$x, $y, $z, $corners] = [$surface->x, $surface->y, $surface->z, $surface->corners];
        $area = 0.0;
        for ($at = 0, $count = count($corners); $at < $count; $at += 3) {
            [$a, $b, $c] = [$corners[$at], $corners[$at + 1], $corners[$at + 2]];
            [$bx, $by, $bz] = [$x[$b] - $x[$a], $y[$b] - $y[$a], $z[$b] - $z[$a]];
            [$cx, $cy, $cz] = [$x[$c] - $x[$a], $y[$c] - $y[$a], $z[$c] - $z[$a]];
            $area += sqrt(($by * $cz - $bz * $cy) ** 2 + ($bz * $cx - $bx * $cz) ** 2 + ($bx * $cy - $by * $cx) ** 2) / 2;
        }

        return $area;
    }
}
