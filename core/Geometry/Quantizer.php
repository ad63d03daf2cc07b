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
                $quantized[] = (int) round(($n[$at] - $x) * $sx);
                $quantized[] = (int) round(($n[$at + 1] - $y) * $sy);
                $quantized[] = (int) round(($n[$at + 2] - $z) * $sz);
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
                $length = sqrt($x * $x + $y * $y + $z * $z);
                $scale = $length > 1e-12 && is_finite($length) ? 127 / $length : 0.0;
                $quantized[] = $scale === 0.0 ? 0 : (int) round($x * $scale);
                $quantized[] = $scale === 0.0 ? 0 : (int) round($y * $scale);
                $quantized[] = $scale === 0.0 ? 127 : (int) round($z * $scale);
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
