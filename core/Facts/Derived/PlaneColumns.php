<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\MeshWeights;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Planes;
use VineShelf\Scene\Scene;

/**
 * {@see Planes} of what each row draws: "planes.triangles", "planes.vertices" and "planes.calls" at Full; "planes.coarsetriangles" and
 * "planes.coarsevertices" at Coarse; "planes.placements", how often its mesh is placed; "planes.bytes" and "planes.coarsebytes" of meshes
 * that no other row draws.
 */
final class PlaneColumns implements Family
{
    private const NEEDS = [
        'triangles' => ['triangles'],
        'placements' => ['recordAt'],
        'vertices' => ['vertices'],
        'calls' => ['recordAt', 'mesh', 'meshweights', 'meshrows'],
        'coarsetriangles' => ['recordAt', 'mesh', 'meshweights', 'meshrows', 'versions'],
        'coarsevertices' => ['recordAt', 'mesh', 'meshweights', 'meshrows', 'versions'],
        'bytes' => ['mesh', 'meshweights', 'meshrows'],
        'coarsebytes' => ['mesh', 'meshweights', 'meshrows', 'versions'],
    ];

    public function name(): string
    {
        return 'planes';
    }

    public function has(string $of): bool
    {
        return isset(self::NEEDS[$of]);
    }

    public function needs(string $of): array
    {
        return self::NEEDS[$of];
    }

    public function make(Scene $scene, string $of): string
    {
        return Planes::pack($scene->count(), self::numbers($scene, $of));
    }

    /** @return list<int> what each row has, from row 1 on */
    public static function numbers(Scene $scene, string $of): array
    {
        return match ($of) {
            'triangles' => self::differences(self::sums($scene)),
            'placements' => self::placements($scene),
            'vertices' => array_slice(Packed::uint32($scene->column('vertices'), 0, $scene->count() + 1), 1),
            'calls' => array_slice(Values::calls($scene), 1),
            'bytes', 'coarsebytes' => self::ofAlone($scene, self::each($scene, $of)),
            'geometry', 'coarsegeometry' => self::ofMesh($scene, self::each($scene, str_replace('geometry', 'bytes', $of))),
            default => self::drawn($scene, self::each($scene, $of)),
        };
    }

    /** @return array<int, int> by mesh number */
    private static function each(Scene $scene, string $of): array
    {
        [$triangles, $vertices, , $bytes] = MeshWeights::all($scene);
        $each = match ($of) {
            'coarsetriangles' => $triangles,
            'coarsevertices' => $vertices,
            default => $bytes,
        };
        if (str_starts_with($of, 'coarse')) {
            foreach (MeshVersions::coarse($scene) as $mesh => $version) {
                $each[$mesh] = (int) $version[substr($of, 6)];
            }
        }

        return $each;
    }

    /** @return list<int> triangles of the rows before, one more than rows */
    private static function sums(Scene $scene): array
    {
        /** @var array<int, int> $sums */
        $sums = unpack('P*', $scene->column('triangles'));

        return array_values($sums);
    }

    /** @return list<int> by row, from row 1 on */
    private static function placements(Scene $scene): array
    {
        return self::differences(array_slice(Packed::uint32($scene->column('recordAt'), 0, $scene->count() + 2), 1));
    }

    /**
     * @param list<int> $sums of the rows before, one more than rows
     *
     * @return list<int>
     */
    private static function differences(array $sums): array
    {
        $numbers = [];
        for ($row = 1, $count = count($sums); $row < $count; $row++) {
            $numbers[] = $sums[$row] - $sums[$row - 1];
        }

        return $numbers;
    }

    /**
     * @param array<int, int> $each by mesh number
     *
     * @return list<int>
     */
    private static function drawn(Scene $scene, array $each): array
    {
        $meshes = Packed::uint32($scene->column('mesh'), 0, $scene->count() + 1);
        $numbers = [];
        foreach (self::placements($scene) as $before => $times) {
            $numbers[] = $times === 0 ? 0 : $times * ($each[$meshes[$before + 1]] ?? 0);
        }

        return $numbers;
    }

    /**
     * @param array<int, int> $each by mesh number
     *
     * @return list<int>
     */
    private static function ofMesh(Scene $scene, array $each): array
    {
        $meshes = array_slice(Packed::uint32($scene->column('mesh'), 0, $scene->count() + 1), 1);

        return array_map(static fn (int $mesh): int => $mesh > 0 ? $each[$mesh] ?? 0 : 0, $meshes);
    }

    /**
     * @param array<int, int> $each by mesh number
     *
     * @return list<int>
     */
    private static function ofAlone(Scene $scene, array $each): array
    {
        $meshes = Packed::uint32($scene->column('mesh'), 0, $scene->count() + 1);
        $users = array_count_values($meshes);
        $numbers = [];
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            $mesh = $meshes[$row];
            $numbers[] = $mesh > 0 && $users[$mesh] === 1 ? $each[$mesh] ?? 0 : 0;
        }

        return $numbers;
    }
}
