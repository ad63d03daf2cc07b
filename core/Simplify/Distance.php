<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

/** How far points are from triangles (C. Ericson, "Real-Time Collision Detection", 2005, section 5.1.5). */
final class Distance
{
    /**
     * @param array{float, float, float} $p
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     * @param array{float, float, float} $c
     *
     * @return float square of the distance
     */
    public static function square(array $p, array $a, array $b, array $c): float
    {
        [$abx, $aby, $abz] = [$b[0] - $a[0], $b[1] - $a[1], $b[2] - $a[2]];
        [$acx, $acy, $acz] = [$c[0] - $a[0], $c[1] - $a[1], $c[2] - $a[2]];
        [$apx, $apy, $apz] = [$p[0] - $a[0], $p[1] - $a[1], $p[2] - $a[2]];
        $d1 = $abx * $apx + $aby * $apy + $abz * $apz;
        $d2 = $acx * $apx + $acy * $apy + $acz * $apz;
        if ($d1 <= 0 && $d2 <= 0) {
            return $apx * $apx + $apy * $apy + $apz * $apz;
        }
        [$bpx, $bpy, $bpz] = [$p[0] - $b[0], $p[1] - $b[1], $p[2] - $b[2]];
        $d3 = $abx * $bpx + $aby * $bpy + $abz * $bpz;
        $d4 = $acx * $bpx + $acy * $bpy + $acz * $bpz;
        if ($d3 >= 0 && $d4 <= $d3) {
            return $bpx * $bpx + $bpy * $bpy + $bpz * $bpz;
        }
        $vc = $d1 * $d4 - $d3 * $d2;
        if ($vc <= 0 && $d1 >= 0 && $d3 <= 0) {
            $share = $d1 === $d3 ? 0.0 : $d1 / ($d1 - $d3);

            return ($apx - $share * $abx) ** 2 + ($apy - $share * $aby) ** 2 + ($apz - $share * $abz) ** 2;
        }
        [$cpx, $cpy, $cpz] = [$p[0] - $c[0], $p[1] - $c[1], $p[2] - $c[2]];
        $d5 = $abx * $cpx + $aby * $cpy + $abz * $cpz;
        $d6 = $acx * $cpx + $acy * $cpy + $acz * $cpz;
        if ($d6 >= 0 && $d5 <= $d6) {
            return $cpx * $cpx + $cpy * $cpy + $cpz * $cpz;
        }
        $vb = $d5 * $d2 - $d1 * $d6;
        if ($vb <= 0 && $d2 >= 0 && $d6 <= 0) {
            $share = $d2 === $d6 ? 0.0 : $d2 / ($d2 - $d6);

            return ($apx - $share * $acx) ** 2 + ($apy - $share * $acy) ** 2 + ($apz - $share * $acz) ** 2;
        }
        $va = $d3 * $d6 - $d5 * $d4;
        if ($va <= 0 && $d4 - $d3 >= 0 && $d5 - $d6 >= 0) {
            $whole = $d4 - $d3 + ($d5 - $d6);
            $share = $whole === 0.0 ? 0.0 : ($d4 - $d3) / $whole;

            return ($bpx - $share * ($c[0] - $b[0])) ** 2 + ($bpy - $share * ($c[1] - $b[1])) ** 2 + ($bpz - $share * ($c[2] - $b[2])) ** 2;
        }
        $whole = $va + $vb + $vc;
        if ($whole <= 0) {
            return $apx * $apx + $apy * $apy + $apz * $apz;
        }
        [$v, $w] = [$vb / $whole, $vc / $whole];

        return ($apx - $v * $abx - $w * $acx) ** 2 + ($apy - $v * $aby - $w * $acy) ** 2 + ($apz - $v * $abz - $w * $acz) ** 2;
    }
}
