<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Facts\Derived\Blocks;
use VineShelf\Facts\Facts;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;
use VineShelf\Geometry\Shapes;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

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
        $scene = $facts->scene;
        $rungs = $inEffect->rungs();
        $open = $rungs->atLeast(Rung::Box->value);
        foreach ($through as $rung) {
            $open = $open->without($rungs->being($rung->value));
        }
        $asBox = $rungs->being(Rung::Box->value);
        $candidates = $this->candidates($scene, $facts->origin(), $open);
        asort($candidates);
        $best = null;
        foreach ($candidates as $row => $near) {
            if ($best !== null && $near > $best['distance']) {
                break;
            }
            $distance = $this->within($scene, $facts->origin(), $shapes, $row, $asBox->has($row));
            if ($distance !== null && ($best === null || $distance < $best['distance'])) {
                $best = ['row' => $row, 'distance' => $distance];
            }
        }

        return $best;
    }

    /**
     * @param array{float, float, float} $origin
     *
     * @return array<int, float> where the ray enters the boxes of open rows, by row
     */
    private function candidates(Scene $scene, array $origin, Bits $open): array
    {
        $near = $scene->column('near');
        $blocks = range(0, intdiv(strlen($near), 4 * Blocks::SIZES[0]));
        $candidates = [];
        foreach (Blocks::SIZES as $size) {
            $boxes = $scene->column("blocks.$size");
            $met = [];
            foreach ($blocks as $block) {
                $entry = ($block + 1) * 24 > strlen($boxes) ? null : $this->entry($boxes, $block, $origin);
                if ($entry !== null && $size === 1) {
                    $candidates[Packed::uint32At($near, $block)] = $entry;
                } elseif ($entry !== null) {
                    array_push($met, ...range($block * Blocks::STEP, ($block + 1) * Blocks::STEP - 1));
                }
            }
            $blocks = $met;
        }

        return array_filter($candidates, $open->has(...), ARRAY_FILTER_USE_KEY);
    }

    /**
     * Where the ray first meets what a row draws.
     *
     * @param array{float, float, float} $origin
     */
    private function within(Scene $scene, array $origin, Shapes $shapes, int $row, bool $asBox): ?float
    {
        $records = $scene->column('records');
        [$first, $last] = Packed::uint32($scene->column('recordAt'), $row * 4, 2);
        $best = null;
        for ($record = $first; $record < $last; $record++) {
            $mesh = Packed::uint32At(substr($records, $record * DrawRecords::RECORD + 4, 4), 0);
            $shape = $asBox ? Shape::ofBox(DrawRecords::halves($scene, $mesh)) : $shapes->shape($mesh);
            $m = Packed::float32($records, $record * DrawRecords::RECORD + 8, 12);
            [$x, $y, $z] = [$m[3] + $origin[0], $m[7] + $origin[1], $m[11] + $origin[2]];
            $distance = $shape === null
                ? null
                : $this->hit($shape, [$m[0], $m[1], $m[2], $x, $m[4], $m[5], $m[6], $y, $m[8], $m[9], $m[10], $z]);
            if ($distance !== null && ($best === null || $distance < $best)) {
                $best = $distance;
            }
        }

        return $best;
    }

    /**
     * Where the ray enters a box; null when it passes by.
     *
     * @param string                     $boxes  six 32-bit floats each
     * @param array{float, float, float} $origin
     */
    private function entry(string $boxes, int $at, array $origin): ?float
    {
        /** @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float} $b */
        $b = unpack('g6', $boxes, $at * 24);
        if ($b[1] > $b[4]) {
            return null;
        }
        [$ox, $oy, $oz] = $origin;
        // Boxes are kept as 32-bit floats: a little larger, so that rounding hides nothing.
        [$x1, $y1, $z1] = [$b[1] + $ox - 1e-4, $b[2] + $oy - 1e-4, $b[3] + $oz - 1e-4];
        [$x2, $y2, $z2] = [$b[4] + $ox + 1e-4, $b[5] + $oy + 1e-4, $b[6] + $oz + 1e-4];
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
    private function hit(Shape $shape, array $m): ?float
    {
        $best = null;
        foreach ($shape->pieces as $piece) {
            if ($piece['kind'] !== PrimitiveKind::Triangles) {
                continue;
            }
            /** @var array<int, int> $n */
            $n = unpack('s*', $piece['positions']);
            $places = [];
            [$sx, $sy, $sz] = $shape->scale;
            for ($at = 1, $count = count($n); $at < $count; $at += 4) {
                $x = ($n[$at] * $sx) / Shape::STEPS;
                $y = ($n[$at + 1] * $sy) / Shape::STEPS;
                $z = ($n[$at + 2] * $sz) / Shape::STEPS;
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
