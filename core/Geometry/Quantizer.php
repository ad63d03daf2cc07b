<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** Packs floats into the small integers of the glTF extension KHR_mesh_quantization. */
final class Quantizer
{
    /** Bytes of floats handled at a time: 8,192 vertices. */
    private const WINDOW = 98_304;

    /**
     * @param string                     $positions packed 32-bit floats, three per vertex
     * @param array{float, float, float} $centre
     * @param array{float, float, float} $scale     distance from the centre that the largest value stands for along each axis, above 0
     *
     * @return string four signed 16-bit numbers per vertex, the last one 0
     */
    public static function positions(string $positions, array $centre, array $scale): string
    {
        [$x, $y, $z] = $centre;
        [$sx, $sy, $sz] = [32767 / $scale[0], 32767 / $scale[1], 32767 / $scale[2]];
        $packed = '';
        foreach (str_split($positions, self::WINDOW) as $window) {
            /** @var array<int, float> $n */
            $n = unpack('g*', $window);
            $quantized = [];
            for ($at = 1, $end = count($n); $at < $end; $at += 3) {
                // Rounded by hand: a call for each number would take longer than everything else here.
                $a = ($n[$at] - $x) * $sx;
                $b = ($n[$at + 1] - $y) * $sy;
                $c = ($n[$at + 2] - $z) * $sz;
                $quantized[] = (int) ($a < 0 ? $a - 0.5 : $a + 0.5);
                $quantized[] = (int) ($b < 0 ? $b - 0.5 : $b + 0.5);
                $quantized[] = (int) ($c < 0 ? $c - 0.5 : $c + 0.5);
                $quantized[] = 0;
            }
            $packed .= pack('v*', ...$quantized);
        }

        return $packed;
    }

    /**
     * @param string $normals packed 32-bit floats, three per vertex
     *
     * @return string four signed bytes per vertex, the last one 0; of unit length as far as bytes go
     */
    public static function normals(string $normals): string
    {
        $packed = '';
        foreach (str_split($normals, self::WINDOW) as $window) {
            /** @var array<int, float> $n */
            $n = unpack('g*', $window);
            $quantized = [];
            for ($at = 1, $end = count($n); $at < $end; $at += 3) {
                $x = $n[$at];
                $y = $n[$at + 1];
                $z = $n[$at + 2];
                $square = $x * $x + $y * $y + $z * $z;
                if ($square > 0.999 && $square < 1.001) {
                    // Of unit length all but: one step of Newton's method is as good as a root.
                    $scale = 127 * (1.5 - 0.5 * $square);
                } else {
                    $length = sqrt($square);
                    $known = $length > 1e-12 && is_finite($length);
                    $scale = $known ? 127 / $length : 0.0;
                    $z = $known ? $z : INF;
                }
                $x *= $scale;
                $y *= $scale;
                $z = $z === INF ? 127.0 : $z * $scale;
                $quantized[] = (int) ($x < 0 ? $x - 0.5 : $x + 0.5);
                $quantized[] = (int) ($y < 0 ? $y - 0.5 : $y + 0.5);
                $quantized[] = (int) ($z < 0 ? $z - 0.5 : $z + 0.5);
                $quantized[] = 0;
            }
            $packed .= pack('c*', ...$quantized);
        }

        return $packed;
    }

    /**
     * Normals of a node that is scaled unevenly. Normals go by the inverse of a scale, so they are scaled beforehand.
     *
     * @param string                     $normals packed 32-bit floats, three per vertex
     * @param array{float, float, float} $scale   the node's, above 0
     *
     * @return string four signed 16-bit numbers per vertex, the last one 0; of unit length as far as they go
     */
    public static function longNormals(string $normals, array $scale): string
    {
        $packed = '';
        foreach (str_split($normals, self::WINDOW) as $window) {
            /** @var array<int, float> $n */
            $n = unpack('g*', $window);
            $quantized = [];
            for ($at = 1, $end = count($n); $at < $end; $at += 3) {
                [$x, $y, $z] = [$n[$at] * $scale[0], $n[$at + 1] * $scale[1], $n[$at + 2] * $scale[2]];
                $length = sqrt($x * $x + $y * $y + $z * $z);
                $known = $length > 1e-12 && is_finite($length);
                array_push(
                    $quantized,
                    $known ? (int) round((32767 * $x) / $length) : 0,
                    $known ? (int) round((32767 * $y) / $length) : 0,
                    $known ? (int) round((32767 * $z) / $length) : 32767,
                    0,
                );
            }
            $packed .= pack('s*', ...$quantized);
        }

        return $packed;
    }

    /**
     * Unsigned 32-bit indices as 16-bit ones where the vertices allow it.
     *
     * @return array{string, int} bytes and glTF component type
     */
    public static function indices(string $indices, int $vertices): array
    {
        if ($vertices > 65535) {
            return [$indices, 5125];
        }
        $packed = '';
        foreach (str_split($indices, self::WINDOW) as $window) {
            /** @var array<int, int> $n */
            $n = unpack('V*', $window);
            $packed .= pack('v*', ...$n);
        }

        return [$packed, 5123];
    }
}
