<?php

declare(strict_types=1);

namespace VineShelf\Export;

use VineShelf\Geometry\PackedPiece;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\Shape;

/** Places and normals of packed meshes as plain numbers. */
final class Metres
{
    /**
     * @param list<float>|null $baked a transform that they go through; null for none
     *
     * @return list<float> x, y, z of each vertex, metres
     */
    public static function places(PackedShape $shape, PackedPiece $piece, ?array $baked = null): array
    {
        /** @var array<int, int> $n from 1 on */
        $n = unpack('s*', $piece->positions);
        [$sx, $sy, $sz] = array_map(static fn (float $scale): float => $scale / Shape::STEPS, $shape->scale);
        [$cx, $cy, $cz] = $shape->centre;
        $places = [];
        for ($at = 1, $count = count($n); $at < $count; $at += 4) {
            $x = $n[$at] * $sx + $cx;
            $y = $n[$at + 1] * $sy + $cy;
            $z = $n[$at + 2] * $sz + $cz;
            if ($baked === null) {
                array_push($places, $x, $y, $z);
            } else {
                foreach ([0, 4, 8] as $row) {
                    $places[] = $baked[$row] * $x + $baked[$row + 1] * $y + $baked[$row + 2] * $z + $baked[$row + 3];
                }
            }
        }

        return $places;
    }

    /**
     * @param list<float>|null $baked as above; normals go by its cofactors, so that they stay upright on what is skewed or mirrored
     *
     * @return list<float> x, y, z of each vertex, of unit length
     */
    public static function normals(PackedShape $shape, PackedPiece $piece, ?array $baked = null): array
    {
        $isLong = $piece->normalBytes() === 8;
        /** @var array<int, int> $n from 1 on */
        $n = unpack($isLong ? 's*' : 'c*', (string) $piece->normals);
        $scale = $isLong ? $shape->scale : [1.0, 1.0, 1.0];
        $c = $baked === null ? [1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0] : self::cofactors($baked);
        $normals = [];
        for ($at = 1, $count = count($n); $at < $count; $at += 4) {
            [$x, $y, $z] = [$n[$at] / $scale[0], $n[$at + 1] / $scale[1], $n[$at + 2] / $scale[2]];
            [$x, $y, $z] = [
                $c[0] * $x + $c[1] * $y + $c[2] * $z,
                $c[3] * $x + $c[4] * $y + $c[5] * $z,
                $c[6] * $x + $c[7] * $y + $c[8] * $z,
            ];
            $length = sqrt($x * $x + $y * $y + $z * $z);
            $length > 1e-12 ? array_push($normals, $x / $length, $y / $length, $z / $length) : array_push($normals, 0.0, 0.0, 1.0);
        }

        return $normals;
    }

    /**
     * Whether a transform turns left into right.
     *
     * @param list<float> $m
     */
    public static function mirrors(array $m): bool
    {
        return $m[0] * ($m[5] * $m[10] - $m[6] * $m[9]) +
            $m[1] * ($m[6] * $m[8] - $m[4] * $m[10]) +
            $m[2] * ($m[4] * $m[9] - $m[5] * $m[8]) <
            0;
    }

    /**
     * @param list<float> $m
     *
     * @return list<float> row by row, turned round where it mirrors
     */
    private static function cofactors(array $m): array
    {
        $c = [
            $m[5] * $m[10] - $m[6] * $m[9],
            $m[6] * $m[8] - $m[4] * $m[10],
            $m[4] * $m[9] - $m[5] * $m[8],
            $m[2] * $m[9] - $m[1] * $m[10],
            $m[0] * $m[10] - $m[2] * $m[8],
            $m[1] * $m[8] - $m[0] * $m[9],
            $m[1] * $m[6] - $m[2] * $m[5],
            $m[2] * $m[4] - $m[0] * $m[6],
            $m[0] * $m[5] - $m[1] * $m[4],
        ];

        return array_map(static fn (float $part): float => self::mirrors($m) ? -$part : $part, $c);
    }
}
