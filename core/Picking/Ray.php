<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Facts\Facts;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;
use VineShelf\Geometry\Shapes;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Packed;

/**
 * Where a ray first meets what is shown: triangles by the method of Möller and Trumbore, "Fast, minimum storage ray/triangle
 * intersection", 1997, after boxes have ruled out what it passes by.
 *
 * @phpstan-import-type Transform from Affine
 */
final readonly class Ray
{
    /**
     * @param array{float, float, float} $from metres
     * @param array{float, float, float} $way  need not be of unit length
     */
    public function __construct(private array $from, private array $way) {}

    /**
     * @param list<Rung> $through what is on these rungs lets the ray through
     *
     * @return array{row: int, distance: float}|null distance in lengths of the way; null when it meets nothing
     */
    public function meet(Facts $facts, InEffect $inEffect, Shapes $shapes, array $through = [Rung::Hidden]): ?array
    {
        $through = array_map(static fn (Rung $rung): int => $rung->value, $through);
        $scene = $facts->scene;
        $rungs = $inEffect->rungs();
        $records = $scene->column('records');
        $recordAt = $scene->column('recordAt');
        $boxes = $scene->column('box');
        $ends = $scene->column('end');
        [$ox, $oy, $oz] = $facts->origin();
        $candidates = [];
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            /** @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float} $b */
            $b = unpack('g6', $boxes, $row * 24);
            $near = $this->entry($b[1] + $ox, $b[2] + $oy, $b[3] + $oz, $b[4] + $ox, $b[5] + $oy, $b[6] + $oz);
            if ($near === null) {
                $row = Packed::uint32At($ends, $row);
            } elseif (! in_array($rungs->at($row), $through, true)) {
                $candidates[$row] = $near;
            }
        }
        asort($candidates);
        $best = null;
        foreach ($candidates as $row => $near) {
            if ($best !== null && $near > $best['distance']) {
                break;
            }
            [$first, $last] = Packed::uint32($recordAt, $row * 4, 2);
            for ($record = $first; $record < $last; $record++) {
                $shape = $shapes->shape(Packed::uint32At(substr($records, $record * DrawRecords::RECORD + 4, 4), 0));
                $m = Packed::float32($records, $record * DrawRecords::RECORD + 8, 12);
                $distance =
                    $shape === null
                        ? null
                        : $this->within($shape, [
                            $m[0],
                            $m[1],
                            $m[2],
                            $m[3] + $ox,
                            $m[4],
                            $m[5],
                            $m[6],
                            $m[7] + $oy,
                            $m[8],
                            $m[9],
                            $m[10],
                            $m[11] + $oz,
                        ]);
                if ($distance !== null && ($best === null || $distance < $best['distance'])) {
                    $best = ['row' => $row, 'distance' => $distance];
                }
            }
        }

        return $best;
    }

    /** Where the ray enters a box; null when it passes by. */
    private function entry(float $x1, float $y1, float $z1, float $x2, float $y2, float $z2): ?float
    {
        $near = 0.0;
        $far = INF;
        foreach ([[$x1, $x2], [$y1, $y2], [$z1, $z2]] as $axis => [$low, $high]) {
            $from = $this->from[$axis];
            $way = $this->way[$axis];
            if (abs($way) < 1e-12) {
                if ($from < $low - 1e-4 || $from > $high + 1e-4) {
                    return null;
                }

                continue;
            }
            $a = ($low - 1e-4 - $from) / $way;
            $b = ($high + 1e-4 - $from) / $way;
            $near = max($near, min($a, $b));
            $far = min($far, max($a, $b));
        }

        return $near <= $far ? $near : null;
    }

    /** @param Transform $m */
    private function within(Shape $shape, array $m): ?float
    {
        $best = null;
        foreach ($shape->pieces as $piece) {
            if ($piece['kind'] !== PrimitiveKind::Triangles) {
                continue;
            }
            /** @var array<int, int> $n */
            $n = unpack('s*', $piece['positions']);
            $places = [];
            $step = $shape->reach / Shape::STEPS;
            for ($at = 1, $count = count($n); $at < $count; $at += 4) {
                $x = $shape->centre[0] + $n[$at] * $step;
                $y = $shape->centre[1] + $n[$at + 1] * $step;
                $z = $shape->centre[2] + $n[$at + 2] * $step;
                $places[] = [
                    $m[0] * $x + $m[1] * $y + $m[2] * $z + $m[3],
                    $m[4] * $x + $m[5] * $y + $m[6] * $z + $m[7],
                    $m[8] * $x + $m[9] * $y + $m[10] * $z + $m[11],
                ];
            }
            /** @var array<int, int> $corners */
            $corners = unpack($piece['wide'] ? 'V*' : 'v*', $piece['indices']);
            for ($at = 1, $count = count($corners); $at + 2 <= $count; $at += 3) {
                $distance = $this->triangle($places[$corners[$at]], $places[$corners[$at + 1]], $places[$corners[$at + 2]]);
                if ($distance !== null && ($best === null || $distance < $best)) {
                    $best = $distance;
                }
            }
        }

        return $best;
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     * @param array{float, float, float} $c
     */
    private function triangle(array $a, array $b, array $c): ?float
    {
        [$dx, $dy, $dz] = $this->way;
        [$ux, $uy, $uz] = [$b[0] - $a[0], $b[1] - $a[1], $b[2] - $a[2]];
        [$vx, $vy, $vz] = [$c[0] - $a[0], $c[1] - $a[1], $c[2] - $a[2]];
        [$px, $py, $pz] = [$dy * $vz - $dz * $vy, $dz * $vx - $dx * $vz, $dx * $vy - $dy * $vx];
        $determinant = $ux * $px + $uy * $py + $uz * $pz;
        if (abs($determinant) < 1e-14) {
            return null;
        }
        [$tx, $ty, $tz] = [$this->from[0] - $a[0], $this->from[1] - $a[1], $this->from[2] - $a[2]];
        $u = ($tx * $px + $ty * $py + $tz * $pz) / $determinant;
        [$qx, $qy, $qz] = [$ty * $uz - $tz * $uy, $tz * $ux - $tx * $uz, $tx * $uy - $ty * $ux];
        $v = ($dx * $qx + $dy * $qy + $dz * $qz) / $determinant;
        $t = ($vx * $qx + $vy * $qy + $vz * $qz) / $determinant;

        return $u >= 0 && $v >= 0 && $u + $v <= 1 && $t > 1e-9 ? $t : null;
    }
}
