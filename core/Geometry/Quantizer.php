<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** Packs floats into the small integers of the glTF extension KHR_mesh_quantization. */
final class Quantizer
{
    /** Bytes of floats handled at a time: 8,192 vertices. */
    private const WINDOW = 98_304;

    /**
     * @param string $positions packed 32-bit floats, three per vertex
     * @param float  $x         centre
     * @param float  $y         centre
     * @param float  $z         centre
     * @param float  $reach     distance from the centre that the largest value stands for, above 0
     *
     * @return string four signed 16-bit numbers per vertex, the last one 0
     */
    public static function positions(string $positions, float $x, float $y, float $z, float $reach): string
    {
        $scale = 32767 / $reach;
        $packed = '';
        foreach (str_split($positions, self::WINDOW) as $window) {
            /** @var array<int, float> $n */
            $n = unpack('g*', $window);
            $quantized = [];
            for ($at = 1, $end = count($n); $at < $end; $at += 3) {
                $quantized[] = (int) round(($n[$at] - $x) * $scale);
                $quantized[] = (int) round(($n[$at + 1] - $y) * $scale);
                $quantized[] = (int) round(($n[$at + 2] - $z) * $scale);
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
