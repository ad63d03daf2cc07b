<?php

declare(strict_types=1);

namespace VineShelf\Export;

/** Takes a transform without skew apart (K. Shoemake, "Quaternions", 1994). */
final class Turn
{
    /**
     * @param list<float> $m sixteen numbers, column by column
     *
     * @return array{array{float, float, float, float}, array{float, float, float}} unit quaternion x, y, z, w and scales; the first is
     *     below zero where it mirrors
     */
    public static function of(array $m): array
    {
        $scale = [];
        foreach ([0, 4, 8] as $column) {
            $scale[] = sqrt($m[$column] ** 2 + $m[$column + 1] ** 2 + $m[$column + 2] ** 2) ?: 1.0;
        }
        $determinant =
            $m[0] * ($m[5] * $m[10] - $m[9] * $m[6]) - $m[4] * ($m[1] * $m[10] - $m[9] * $m[2]) + $m[8] * ($m[1] * $m[6] - $m[5] * $m[2]);
        $scale[0] *= $determinant < 0 ? -1 : 1;
        [$r00, $r10, $r20] = [$m[0] / $scale[0], $m[1] / $scale[0], $m[2] / $scale[0]];
        [$r01, $r11, $r21] = [$m[4] / $scale[1], $m[5] / $scale[1], $m[6] / $scale[1]];
        [$r02, $r12, $r22] = [$m[8] / $scale[2], $m[9] / $scale[2], $m[10] / $scale[2]];
        $squares = [1 + $r00 - $r11 - $r22, 1 - $r00 + $r11 - $r22, 1 - $r00 - $r11 + $r22, 1 + $r00 + $r11 + $r22];
        $largest = (int) array_search(max($squares), $squares, true);
        $four = 2 * sqrt(max(1e-30, $squares[$largest]));
        $q = match ($largest) {
            0 => [$four / 4, ($r01 + $r10) / $four, ($r02 + $r20) / $four, ($r21 - $r12) / $four],
            1 => [($r01 + $r10) / $four, $four / 4, ($r12 + $r21) / $four, ($r02 - $r20) / $four],
            2 => [($r02 + $r20) / $four, ($r12 + $r21) / $four, $four / 4, ($r10 - $r01) / $four],
            default => [($r21 - $r12) / $four, ($r02 - $r20) / $four, ($r10 - $r01) / $four, $four / 4],
        };
        $length = sqrt($q[0] ** 2 + $q[1] ** 2 + $q[2] ** 2 + $q[3] ** 2) ?: 1.0;

        return [[$q[0] / $length, $q[1] / $length, $q[2] / $length, $q[3] / $length], [$scale[0], $scale[1], $scale[2]]];
    }
}
