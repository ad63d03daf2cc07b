<?php

declare(strict_types=1);

namespace VineShelf\Section;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;

/**
 * The faces that a section opens in what is solid: where triangles cross a plane they leave lines, and what these lines go round is filled.
 * What does not close round anything, as panes and cloths do not, is not filled.
 *
 * @phpstan-import-type Transform from Affine
 * @phpstan-import-type Line from Filling
 */
final class CutFaces
{
    /** @var list<array{Plane, array{float, float, float}, array{float, float, float}, array{float, float, float}}> plane, zero, u, v */
    private array $planes = [];

    /** @param list<Plane> $planes */
    public function __construct(array $planes)
    {
        foreach ($planes as $plane) {
            [$x, $y, $z] = $plane->normal;
            [$u, $v] = $plane->axes();
            $this->planes[] = [$plane, [$x * $plane->distance, $y * $plane->distance, $z * $plane->distance], $u, $v];
        }
    }

    /**
     * @param Transform $placement
     *
     * @return array<int, list<list<float>>> by plane: convex polygons, each its corners as x, y, z after x, y, z, metres
     */
    public function of(Shape $shape, array $placement): array
    {
        $faces = [];
        foreach ($this->planes as $at => $_) {
            $polygons = Filling::of($this->lines($at, $shape, $placement));
            if ($polygons !== []) {
                $faces[$at] = $this->trimmed($at, $polygons);
            }
        }

        return array_filter($faces, static fn (array $polygons): bool => $polygons !== []);
    }

    /** @param list<float> $polygon corners, x, y, z after x, y, z */
    public static function area(array $polygon): float
    {
        $sum = [0.0, 0.0, 0.0];
        for ($at = 3, $count = count($polygon); $at + 5 < $count; $at += 3) {
            [$ax, $ay, $az] = [$polygon[$at] - $polygon[0], $polygon[$at + 1] - $polygon[1], $polygon[$at + 2] - $polygon[2]];
            [$bx, $by, $bz] = [$polygon[$at + 3] - $polygon[0], $polygon[$at + 4] - $polygon[1], $polygon[$at + 5] - $polygon[2]];
            $sum[0] += $ay * $bz - $az * $by;
            $sum[1] += $az * $bx - $ax * $bz;
            $sum[2] += $ax * $by - $ay * $bx;
        }

        return sqrt($sum[0] ** 2 + $sum[1] ** 2 + $sum[2] ** 2) / 2;
    }

    /**
     * Where triangles cross a plane.
     *
     * @param Transform $m
     *
     * @return list<Line>
     */
    private function lines(int $at, Shape $shape, array $m): array
    {
        [$plane, $zero, $u, $v] = $this->planes[$at];
        $along = static fn (float $x, float $y, float $z): Plane => Plane::of([$x, $y, $z], $zero[0] * $x + $zero[1] * $y + $zero[2] * $z);
        [$a, $b, $c, $d] = CutShape::local($plane, $shape, $m);
        // The same places along u and v.
        [$ua, $ub, $uc, $ud] = CutShape::local($along(...$u), $shape, $m);
        [$va, $vb, $vc, $vd] = CutShape::local($along(...$v), $shape, $m);
        $lines = [];
        foreach ($shape->pieces as $piece) {
            if ($piece['kind'] !== PrimitiveKind::Triangles) {
                continue;
            }
            /** @var array<int, int> $n */
            $n = unpack('s*', $piece['positions']);
            /** @var array<int, int> $corners */
            $corners = unpack($piece['wide'] ? 'V*' : 'v*', $piece['indices']);
            $beyond = [];
            $above = $below = false;
            for ($place = 1, $count = count($n); $place < $count; $place += 4) {
                $beyond[] = $is = $a * $n[$place] + $b * $n[$place + 1] + $c * $n[$place + 2] - $d;
                $above = $above || $is >= 0;
                $below = $below || $is < 0;
            }
            if (! $above || ! $below) {
                continue;
            }
            for ($at = 1, $count = count($corners) - 2; $at <= $count; $at += 3) {
                $three = [$corners[$at], $corners[$at + 1], $corners[$at + 2]];
                $in = ($beyond[$three[0]] < 0 ? 1 : 0) + ($beyond[$three[1]] < 0 ? 2 : 0) + ($beyond[$three[2]] < 0 ? 4 : 0);
                if ($in === 0 || $in === 7) {
                    continue;
                }
                $ends = [[0.0, 0.0], [0.0, 0.0]];
                foreach ([[0, 1], [1, 2], [2, 0]] as [$from, $to]) {
                    $leaves = (($in >> $from) & 1) === 1;
                    if ($leaves === ((($in >> $to) & 1) === 1)) {
                        continue;
                    }
                    // From the kept end to the other, whichever way the triangle goes: neighbours come to the very same place.
                    [$kept, $gone] = $leaves ? [$three[$from], $three[$to]] : [$three[$to], $three[$from]];
                    $share = $beyond[$kept] / ($beyond[$kept] - $beyond[$gone]);
                    [$p, $q] = [4 * $kept + 1, 4 * $gone + 1];
                    $x = $n[$p] + $share * ($n[$q] - $n[$p]);
                    $y = $n[$p + 1] + $share * ($n[$q + 1] - $n[$p + 1]);
                    $z = $n[$p + 2] + $share * ($n[$q + 2] - $n[$p + 2]);
                    $ends[$leaves ? 0 : 1] = [$ua * $x + $ub * $y + $uc * $z - $ud, $va * $x + $vb * $y + $vc * $z - $vd];
                }
                if ($ends[0] !== $ends[1]) {
                    $lines[] = [$ends[0][0], $ends[0][1], $ends[1][0], $ends[1][1]];
                }
            }
        }

        return $lines;
    }

    /**
     * What the other planes leave of polygons, in the room.
     *
     * @param list<list<float>> $polygons u, v after u, v
     *
     * @return list<list<float>> x, y, z after x, y, z
     */
    private function trimmed(int $at, array $polygons): array
    {
        [, $zero, $u, $v] = $this->planes[$at];
        $halves = [];
        foreach ($this->planes as $other => [$plane]) {
            if ($other !== $at) {
                [$x, $y, $z] = $plane->normal;
                $halves[] = [$x * $u[0] + $y * $u[1] + $z * $u[2], $x * $v[0] + $y * $v[1] + $z * $v[2], -$plane->beyond(...$zero)];
            }
        }
        $kept = [];
        foreach ($polygons as $polygon) {
            foreach ($halves as [$a, $b, $most]) {
                $polygon = self::half($polygon, $a, $b, $most);
            }
            $corners = [];
            for ($corner = 0, $count = count($polygon); $corner < $count; $corner += 2) {
                [$p, $q] = [$polygon[$corner], $polygon[$corner + 1]];
                for ($axis = 0; $axis < 3; $axis++) {
                    $corners[] = $zero[$axis] + $p * $u[$axis] + $q * $v[$axis];
                }
            }
            if (count($corners) >= 9) {
                $kept[] = $corners;
            }
        }

        return $kept;
    }

    /**
     * What of a convex polygon is where a u + b v is at most so much.
     *
     * @param list<float> $polygon
     *
     * @return list<float>
     */
    private static function half(array $polygon, float $a, float $b, float $most): array
    {
        $kept = [];
        for ($at = 0, $count = count($polygon); $at < $count; $at += 2) {
            [$u0, $v0] = [$polygon[($at + $count - 2) % $count], $polygon[($at + $count - 1) % $count]];
            [$u1, $v1] = [$polygon[$at], $polygon[$at + 1]];
            $was = $a * $u0 + $b * $v0 - $most;
            $is = $a * $u1 + $b * $v1 - $most;
            if ($was > 0 !== $is > 0) {
                $share = $was / ($was - $is);
                array_push($kept, $u0 + $share * ($u1 - $u0), $v0 + $share * ($v1 - $v0));
            }
            if ($is <= 0) {
                array_push($kept, $u1, $v1);
            }
        }

        return $kept;
    }
}
