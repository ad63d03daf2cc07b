<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\Hulls;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * "bounds": six doubles per row: least and greatest x, y, z of what it and what it holds draw, metres from the origin; infinite where
 * nothing is drawn. Exact to the points of its meshes, however they are turned.
 *
 * @phpstan-import-type Transform from Affine
 */
final class Bounds implements Family
{
    /** How many turned meshes, and how many numbers of points, are remembered before it begins again with an empty memory. */
    private const TURNS = 20_000;

    private const NUMBERS = 1_500_000;

    public function name(): string
    {
        return 'bounds';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['placements', 'records', 'recordAt', 'hulls', 'origin', 'parent'];
    }

    public function make(Scene $scene, string $of): string
    {
        $parents = Packed::uint32($scene->column('parent'), 0, $scene->count() + 1);
        $packed = '';
        foreach (self::gathered($this->drawn($scene), $parents) as $box) {
            $packed .= pack('e6', ...($box ?? new Box)->toList());
        }

        return $packed;
    }

    /**
     * @internal shared with Places
     *
     * @param array<int, Box|null> $boxes   by row
     * @param list<int>            $parents by row
     *
     * @return array<int, Box|null> with those of what each row holds
     */
    public static function gathered(array $boxes, array $parents): array
    {
        for ($row = count($boxes) - 1; $row > 0; $row--) {
            if ($boxes[$row] !== null && $parents[$row] > 0) {
                $boxes[$parents[$row]] = $boxes[$parents[$row]]?->with($boxes[$row]) ?? $boxes[$row];
            }
        }

        return $boxes;
    }

    /** @return array<int, Box|null> by row, from 0: what the object itself draws */
    private function drawn(Scene $scene): array
    {
        $count = $scene->count();
        $records = $scene->column('records');
        $placements = $scene->column('placements');
        $recordAt = Packed::uint32($scene->column('recordAt'), 0, $count + 2);
        [$ox, $oy, $oz] = Packed::float64($scene->column('origin'), 0, 3);
        $hulls = Hulls::unpack($scene->column('hulls'));
        $boxes = array_fill(0, $count + 1, null);
        $points = $turned = [];
        $numbers = 0;
        for ($row = 1; $row <= $count; $row++) {
            for ($record = $recordAt[$row]; $record < $recordAt[$row + 1]; $record++) {
                $mesh = substr($records, $record * DrawRecords::RECORD + 4, 4);
                if (! isset($points[$mesh])) {
                    if ($numbers > self::NUMBERS) {
                        $points = [];
                        $numbers = 0;
                    }
                    $points[$mesh] = $hulls->points(Packed::uint32At($mesh, 0));
                    $numbers += count($points[$mesh]);
                }
                $at = $record * 96;
                $turn = $mesh.substr($placements, $at, 24).substr($placements, $at + 32, 24).substr($placements, $at + 64, 24);
                if (! isset($turned[$turn])) {
                    if (count($turned) >= self::TURNS) {
                        $turned = [];
                    }
                    $turned[$turn] = self::around($points[$mesh], Affine::unpack($placements, $at));
                }
                [$minX, $minY, $minZ, $maxX, $maxY, $maxZ] = $turned[$turn];
                $x = Packed::float64($placements, $at + 24, 1)[0] - $ox;
                $y = Packed::float64($placements, $at + 56, 1)[0] - $oy;
                $z = Packed::float64($placements, $at + 88, 1)[0] - $oz;
                $box = new Box($minX + $x, $minY + $y, $minZ + $z, $maxX + $x, $maxY + $y, $maxZ + $z);
                $boxes[$row] = $boxes[$row] === null ? $box : $boxes[$row]->with($box);
            }
        }

        return $boxes;
    }

    /**
     * The reach of points that are turned and scaled, not moved.
     *
     * @param list<float> $n three per point
     * @param Transform   $m
     *
     * @return array{float, float, float, float, float, float}
     */
    private static function around(array $n, array $m): array
    {
        [$a, $b, $c, , $d, $e, $f, , $g, $h, $i] = $m;
        $minX = $minY = $minZ = INF;
        $maxX = $maxY = $maxZ = -INF;
        for ($at = 0, $end = count($n); $at < $end; $at += 3) {
            $x = $a * $n[$at] + $b * $n[$at + 1] + $c * $n[$at + 2];
            $y = $d * $n[$at] + $e * $n[$at + 1] + $f * $n[$at + 2];
            $z = $g * $n[$at] + $h * $n[$at + 1] + $i * $n[$at + 2];
            $minX = $x < $minX ? $x : $minX;
            $maxX = $x > $maxX ? $x : $maxX;
            $minY = $y < $minY ? $y : $minY;
            $maxY = $y > $maxY ? $y : $maxY;
            $minZ = $z < $minZ ? $z : $minZ;
            $maxZ = $z > $maxZ ? $z : $maxZ;
        }

        return [$minX, $minY, $minZ, $maxX, $maxY, $maxZ];
    }
}
