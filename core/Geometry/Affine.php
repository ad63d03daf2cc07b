<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * Affine transforms as 12 numbers, row by row: three rows of [x, y, z, move].
 *
 * Plain lists, not objects: an import makes hundreds of thousands of them.
 *
 * @phpstan-type Transform array{float, float, float, float, float, float, float, float, float, float, float, float}
 */
final class Affine
{
    /** @var Transform */
    public const IDENTITY = [1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0];

    /** Turns y up into z up: (x, y, z) becomes (x, -z, y). @var Transform */
    public const Y_UP_TO_Z_UP = [1.0, 0.0, 0.0, 0.0, 0.0, 0.0, -1.0, 0.0, 0.0, 1.0, 0.0, 0.0];

    /** Turns z up into y up, the other way round. @var Transform */
    public const Z_UP_TO_Y_UP = [1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, -1.0, 0.0, 0.0];

    /**
     * First $inner, then $outer.
     *
     * @param Transform $outer
     * @param Transform $inner
     *
     * @return Transform
     */
    public static function product(array $outer, array $inner): array
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i, $j, $k, $l] = $outer;
        [$m, $n, $o, $p, $q, $r, $s, $t, $u, $v, $w, $x] = $inner;

        return [
            $a * $m + $b * $q + $c * $u,
            $a * $n + $b * $r + $c * $v,
            $a * $o + $b * $s + $c * $w,
            $a * $p + $b * $t + $c * $x + $d,
            $e * $m + $f * $q + $g * $u,
            $e * $n + $f * $r + $g * $v,
            $e * $o + $f * $s + $g * $w,
            $e * $p + $f * $t + $g * $x + $h,
            $i * $m + $j * $q + $k * $u,
            $i * $n + $j * $r + $k * $v,
            $i * $o + $j * $s + $k * $w,
            $i * $p + $j * $t + $k * $x + $l,
        ];
    }

    /**
     * Whether it turns, moves, mirrors and scales alike in every direction, and nothing else.
     *
     * @param Transform $m
     */
    public static function isAlike(array $m): bool
    {
        $dot = static fn (int $p, int $q): float => $m[$p] * $m[$q] + $m[$p + 4] * $m[$q + 4] + $m[$p + 8] * $m[$q + 8];
        $size = $dot(0, 0);
        $off = max(abs($dot(1, 1) - $size), abs($dot(2, 2) - $size), abs($dot(0, 1)), abs($dot(1, 2)), abs($dot(2, 0)));

        return $size > 0.0 && $off <= 1e-9 * $size;
    }

    /**
     * What undoes a transform that {@see isAlike()}.
     *
     * @param Transform $m
     *
     * @return Transform
     */
    public static function undoing(array $m): array
    {
        $size = $m[0] * $m[0] + $m[4] * $m[4] + $m[8] * $m[8];
        $r = [$m[0] / $size, $m[4] / $size, $m[8] / $size, $m[1] / $size, $m[5] / $size, $m[9] / $size, $m[2] / $size, $m[6] / $size];
        $r[] = $m[10] / $size;
        $back = static fn (int $at): float => -($r[$at] * $m[3] + $r[$at + 1] * $m[7] + $r[$at + 2] * $m[11]);

        return [$r[0], $r[1], $r[2], $back(0), $r[3], $r[4], $r[5], $back(3), $r[6], $r[7], $r[8], $back(6)];
    }

    /**
     * @param list<float> $move   3 numbers
     * @param list<float> $turn   unit quaternion x, y, z, w; made unit length if it is not
     * @param list<float> $scale  3 numbers
     *
     * @return Transform
     */
    public static function compose(array $move, array $turn, array $scale): array
    {
        [$x, $y, $z, $w] = [$turn[0] ?? 0.0, $turn[1] ?? 0.0, $turn[2] ?? 0.0, $turn[3] ?? 1.0];
        [$sx, $sy, $sz] = [$scale[0] ?? 1.0, $scale[1] ?? 1.0, $scale[2] ?? 1.0];
        $length = sqrt($x * $x + $y * $y + $z * $z + $w * $w);
        if ($length > 0 && abs($length - 1) > 1e-9) {
            $x /= $length;
            $y /= $length;
            $z /= $length;
            $w /= $length;
        }

        return [
            (1 - 2 * ($y * $y + $z * $z)) * $sx,
            2 * ($x * $y - $z * $w) * $sy,
            2 * ($x * $z + $y * $w) * $sz,
            $move[0] ?? 0.0,
            2 * ($x * $y + $z * $w) * $sx,
            (1 - 2 * ($x * $x + $z * $z)) * $sy,
            2 * ($y * $z - $x * $w) * $sz,
            $move[1] ?? 0.0,
            2 * ($x * $z - $y * $w) * $sx,
            2 * ($y * $z + $x * $w) * $sy,
            (1 - 2 * ($x * $x + $y * $y)) * $sz,
            $move[2] ?? 0.0,
        ];
    }

    /**
     * @param list<float> $columns 16 numbers, column by column, as glTF writes a matrix
     *
     * @return Transform
     */
    public static function fromColumns(array $columns): array
    {
        $m = $columns + array_fill(0, 16, 0.0);

        return [$m[0], $m[4], $m[8], $m[12], $m[1], $m[5], $m[9], $m[13], $m[2], $m[6], $m[10], $m[14]];
    }

    /**
     * As short as it is exact, for keeping many: nothing for the identity, three numbers for what is only moved, twelve otherwise.
     *
     * @param string $packed as {@see pack()} gives it, one transform
     */
    public static function shortened(string $packed): string
    {
        $upright = self::upright();
        if (
            substr($packed, 0, 24) !== substr($upright, 0, 24) ||
            substr($packed, 32, 24) !== substr($upright, 32, 24) ||
            substr($packed, 64, 24) !== substr($upright, 64, 24)
        ) {
            return $packed;
        }
        $move = substr($packed, 24, 8).substr($packed, 56, 8).substr($packed, 88, 8);

        return $move === str_repeat("\0", 24) ? '' : $move;
    }

    private static function upright(): string
    {
        /** @var string|null $upright */
        static $upright = null;

        return $upright ??= self::pack(self::IDENTITY);
    }

    /** @return string what was {@see shortened()}, as {@see pack()} gave it */
    public static function lengthened(string $short): string
    {
        if (strlen($short) > 24) {
            return $short;
        }
        $upright = self::upright();
        $short = str_pad($short, 24, "\0");

        return substr($upright, 0, 24).
            substr($short, 0, 8).
            substr($upright, 32, 24).
            substr($short, 8, 8).
            substr($upright, 64, 24).
            substr($short, 16, 8);
    }

    /** @param Transform $transform */
    public static function pack(array $transform): string
    {
        return pack('e12', ...$transform);
    }

    /** @return Transform */
    public static function unpack(string $packed, int $offset = 0): array
    {
        /**
         * @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float, 7: float, 8: float, 9: float, 10: float, 11: float,
         *     12: float} $m
         */
        $m = unpack('e12', $packed, $offset);

        return [$m[1], $m[2], $m[3], $m[4], $m[5], $m[6], $m[7], $m[8], $m[9], $m[10], $m[11], $m[12]];
    }
}
