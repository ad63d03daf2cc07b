<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * The column "versions": the coarser versions of all meshes, by mesh, the finest first, 24 bytes each: mesh number, pack, triangles,
 * vertices, uint32; metres that no place of the mesh is farther away from it, float; bytes, uint32. The highest bit of the triangles says
 * that the version does for the rung Coarse.
 */
final readonly class MeshVersions
{
    public const ENTRY = 24;

    private const COARSE = 0x80000000;

    /** One entry as it stands beside its pack, whose number is not known yet. */
    public static function entry(int $mesh, int $triangles, int $vertices, float $error, int $bytes, bool $isCoarse): string
    {
        return pack('V4gV', $mesh, 0, $triangles | ($isCoarse ? self::COARSE : 0), $vertices, $error, $bytes);
    }

    /** @param iterable<int, string> $entries by pack, in any order @return string the column */
    public static function column(iterable $entries): string
    {
        $by = [];
        foreach ($entries as $pack => $packed) {
            foreach ($packed === '' ? [] : str_split($packed, self::ENTRY) as $entry) {
                [$mesh, , $triangles] = Packed::uint32($entry, 0, 3);
                $by[$mesh][$triangles & ~self::COARSE] = substr_replace($entry, pack('V', $pack), 4, 4);
            }
        }
        ksort($by);
        $column = '';
        foreach ($by as $versions) {
            krsort($versions);
            $column .= implode('', $versions);
        }

        return $column;
    }

    /**
     * The versions of one mesh.
     *
     * @return list<array{pack: int, triangles: int, vertices: int, error: float, bytes: int, coarse: bool}> the finest first
     */
    public static function of(Scene $scene, int $mesh): array
    {
        $column = $scene->column('versions');
        [$low, $high] = [0, intdiv(strlen($column), self::ENTRY)];
        $end = $high;
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if (Packed::uint32($column, $middle * self::ENTRY, 1)[0] < $mesh) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }
        $versions = [];
        for (; $low < $end; $low++) {
            [$of, $version] = self::read($column, $low * self::ENTRY);
            if ($of !== $mesh) {
                break;
            }
            $versions[] = $version;
        }

        return $versions;
    }

    /**
     * @return array<int, list<array{pack: int, triangles: int, vertices: int, error: float, bytes: int, coarse: bool}>> by mesh, the finest
     *     first
     */
    public static function all(Scene $scene): array
    {
        $all = [];
        $column = $scene->column('versions');
        for ($at = 0, $end = strlen($column); $at < $end; $at += self::ENTRY) {
            [$mesh, $version] = self::read($column, $at);
            $all[$mesh][] = $version;
        }

        return $all;
    }

    /** @return array{int, array{pack: int, triangles: int, vertices: int, error: float, bytes: int, coarse: bool}} mesh and version */
    private static function read(string $column, int $at): array
    {
        /** @var array{mesh: int, pack: int, triangles: int, vertices: int, error: float, bytes: int} $entry */
        $entry = unpack('Vmesh/Vpack/Vtriangles/Vvertices/gerror/Vbytes', $column, $at);

        return [
            $entry['mesh'],
            [
                'pack' => $entry['pack'],
                'triangles' => $entry['triangles'] & ~self::COARSE,
                'vertices' => $entry['vertices'],
                'error' => $entry['error'],
                'bytes' => $entry['bytes'],
                'coarse' => ($entry['triangles'] & self::COARSE) !== 0,
            ],
        ];
    }

    /**
     * The version that does for the rung Coarse, of the meshes that have one.
     *
     * @return array<int, array{triangles: int, vertices: int, bytes: int, error: float}> by mesh
     */
    public static function coarse(Scene $scene): array
    {
        $coarse = [];
        $column = $scene->column('versions');
        for ($at = 0, $end = strlen($column); $at < $end; $at += self::ENTRY) {
            [$mesh, , $triangles, $vertices, , $bytes] = Packed::uint32($column, $at, 6);
            if (($triangles & self::COARSE) !== 0) {
                $coarse[$mesh] = [
                    'triangles' => $triangles & ~self::COARSE,
                    'vertices' => $vertices,
                    'bytes' => $bytes,
                    'error' => Packed::float32($column, $at + 16, 1)[0],
                ];
            }
        }

        return $coarse;
    }

    /** @return array<int, int> by mesh, where in the column its version for the rung Coarse stands, see {@see weight()} */
    public static function whereCoarse(Scene $scene): array
    {
        $where = [];
        $column = $scene->column('versions');
        for ($at = 0, $end = strlen($column); $at < $end; $at += self::ENTRY) {
            if ($column[$at + 11] >= "\x80") {
                $where[Packed::uint32At($column, $at >> 2)] = $at;
            }
        }

        return $where;
    }

    /** @return array{int, int, int} triangles, vertices and bytes of the version that stands there */
    public static function weight(string $column, int $at): array
    {
        $first = $at >> 2;

        return [
            Packed::uint32At($column, $first + 2) & ~self::COARSE,
            Packed::uint32At($column, $first + 3),
            Packed::uint32At($column, $first + 5),
        ];
    }
}
