<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * "near": the rows that draw something, 32 bits each, so that what stands close together in the model stands close together here, however
 * the model is sorted: by size in four classes, and in each by the middle of the box along a Z-order curve (G. M. Morton, "A computer
 * oriented geodetic data base and a new technique in file sequencing", 1966).
 */
final class Near implements Family
{
    /** Steps along each axis: 10 bits. */
    private const STEPS = 1023;

    /** The greatest box side in parts of the model's from which on a row is in the first class, in the second, in the third. */
    private const CLASSES = [1 / 8, 1 / 32, 1 / 128];

    public function name(): string
    {
        return 'near';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['box', 'recordAt'];
    }

    public function make(Scene $scene, string $of): string
    {
        $boxes = $scene->column('box');
        $records = Packed::uint32($scene->column('recordAt'), 0, $scene->count() + 2);
        $left = $front = $bottom = INF;
        $wide = 0.0;
        $found = [];
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            if ($records[$row + 1] > $records[$row]) {
                [$x1, $y1, $z1, $x2, $y2, $z2] = Packed::float32($boxes, $row * 24, 6);
                $left = min($left, $x1);
                $front = min($front, $y1);
                $bottom = min($bottom, $z1);
                $found[$row] = [$x1 + $x2, $y1 + $y2, $z1 + $z2, max($x2 - $x1, $y2 - $y1, $z2 - $z1)];
                $wide = max($wide, $x2, $y2, $z2);
            }
        }
        // One scale for all axes: a flat model is wide, not tall.
        $wide = max($wide - min($left, $front, $bottom), 1e-6);
        $scale = self::STEPS / $wide;
        $keys = [];
        foreach ($found as $row => [$x, $y, $z, $side]) {
            $class = 0;
            while ($class < 3 && $side < self::CLASSES[$class] * $wide) {
                $class++;
            }
            $curve = self::spread((int) (($x / 2 - $left) * $scale))
                | (self::spread((int) (($y / 2 - $front) * $scale)) << 1)
                | (self::spread((int) (($z / 2 - $bottom) * $scale)) << 2);
            $keys[] = (($class << 30 | $curve) << 24) | $row;
        }
        sort($keys);
        $packed = '';
        foreach (array_chunk($keys, 8192) as $some) {
            $packed .= pack('V*', ...array_map(static fn (int $key): int => $key & 0xffffff, $some));
        }

        return $packed;
    }

    /** Puts two empty bits before each of ten. */
    private static function spread(int $bits): int
    {
        $bits = max(0, min(self::STEPS, $bits));
        $bits = ($bits | ($bits << 16)) & 0x030000ff;
        $bits = ($bits | ($bits << 8)) & 0x0300f00f;
        $bits = ($bits | ($bits << 4)) & 0x030c30c3;

        return ($bits | ($bits << 2)) & 0x09249249;
    }
}
