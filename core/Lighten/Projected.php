<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;
use VineShelf\Picking\Camera;
use VineShelf\Picking\Pieces;

/**
 * Puts placed meshes into a {@see Raster}.
 *
 * @phpstan-import-type Transform from Affine
 */
final class Projected
{
    private readonly Pieces $pieces;

    public function __construct(private readonly Camera $camera, private readonly Raster $raster)
    {
        $this->pieces = new Pieces;
    }

    /**
     * @param Transform $m
     * @param int       $colour 0xRRGGBB
     * @param float     $opaque as {@see Raster::triangles()} has it
     *
     * @return array{int, int, int} pixels covered, those in front if it is see-through, and triangles
     */
    public function draw(int $row, Shape $shape, array $m, int $colour, float $opaque): array
    {
        $covered = $front = $triangles = 0;
        [$sx, $sy, $sz] = $shape->scale;
        $p = Affine::product($this->camera->rows, $m);
        $h = $this->camera->ahead;
        $steps = Shape::STEPS;
        [$a, $b, $c] = [($p[0] * $sx) / $steps, ($p[1] * $sy) / $steps, ($p[2] * $sz) / $steps];
        [$e, $f, $g] = [($p[4] * $sx) / $steps, ($p[5] * $sy) / $steps, ($p[6] * $sz) / $steps];
        $i = (($h[0] * $m[0] + $h[1] * $m[4] + $h[2] * $m[8]) * $sx) / $steps;
        $j = (($h[0] * $m[1] + $h[1] * $m[5] + $h[2] * $m[9]) * $sy) / $steps;
        $k = (($h[0] * $m[2] + $h[1] * $m[6] + $h[2] * $m[10]) * $sz) / $steps;
        $l = $h[0] * $m[3] + $h[1] * $m[7] + $h[2] * $m[11] + $h[3];
        $parallel = $this->camera->isParallel;
        $near = $this->camera->near;
        foreach ($shape->pieces as $index => $piece) {
            if ($piece['kind'] !== PrimitiveKind::Triangles) {
                continue;
            }
            $xs = $ys = $qs = [];
            $isBehind = false;
            foreach ($this->pieces->windows($shape, $index) as $n) {
                for ($at = 1, $end = count($n); $at < $end; $at += 4) {
                    $x = $n[$at];
                    $y = $n[$at + 1];
                    $z = $n[$at + 2];
                    $w = $i * $x + $j * $y + $k * $z + $l;
                    $u = $a * $x + $b * $y + $c * $z + $p[3];
                    $v = $e * $x + $f * $y + $g * $z + $p[7];
                    if ($parallel) {
                        $xs[] = $u;
                        $ys[] = $v;
                        $qs[] = -$w;
                    } elseif ($w >= $near) {
                        $xs[] = $u / $w;
                        $ys[] = $v / $w;
                        $qs[] = 1 / $w;
                    } else {
                        // Not divided: what it belongs to is cut off in front of the eye.
                        $isBehind = true;
                        $xs[] = $u;
                        $ys[] = $v;
                        $qs[] = $w - 1e9;
                    }
                }
            }
            $corners = $this->pieces->corners($shape, $index);
            if ($isBehind) {
                [$xs, $ys, $qs, $corners] = $this->inFront($xs, $ys, $qs, $corners);
            }
            $triangles += intdiv(count($corners), 3);
            [$more, $moreFront] = $this->raster->triangles($row, $xs, $ys, $qs, $corners, $colour, $opaque);
            $covered += $more;
            $front += $moreFront;
        }

        return [$covered, $front, $triangles];
    }

    /**
     * @param list<float>     $xs
     * @param list<float>     $ys
     * @param list<float>     $qs      below -1e8 where the vertex is behind: then metres ahead less 1e9, and its place not divided
     * @param array<int, int> $corners
     *
     * @return array{list<float>, list<float>, list<float>, array<int, int>} with what is left of triangles that reach behind
     */
    private function inFront(array $xs, array $ys, array $qs, array $corners): array
    {
        $kept = [];
        $near = $this->camera->near;
        for ($at = 1, $end = count($corners) - 2; $at <= $end; $at += 3) {
            $three = [$corners[$at], $corners[$at + 1], $corners[$at + 2]];
            $behind = array_filter($three, static fn (int $vertex): bool => $qs[$vertex] < -1e8);
            if (count($behind) === 3) {
                continue;
            }
            if ($behind === []) {
                array_push($kept, ...$three);

                continue;
            }
            $corner = [];
            foreach ($three as $vertex) {
                $w = $qs[$vertex] < -1e8 ? $qs[$vertex] + 1e9 : 1 / $qs[$vertex];
                $corner[] = $qs[$vertex] < -1e8 ? [$xs[$vertex], $ys[$vertex], $w] : [$xs[$vertex] * $w, $ys[$vertex] * $w, $w];
            }
            $polygon = [];
            foreach ($corner as $number => $one) {
                $other = $corner[($number + 1) % 3];
                if ($one[2] >= $near) {
                    $polygon[] = $one;
                }
                if ($one[2] >= $near !== $other[2] >= $near) {
                    $t = ($near - $one[2]) / ($other[2] - $one[2]);
                    $polygon[] = [$one[0] + ($other[0] - $one[0]) * $t, $one[1] + ($other[1] - $one[1]) * $t, $near];
                }
            }
            $first = count($xs);
            foreach ($polygon as [$x, $y, $w]) {
                $xs[] = $x / $w;
                $ys[] = $y / $w;
                $qs[] = 1 / $w;
            }
            for ($next = 2; $next < count($polygon); $next++) {
                array_push($kept, $first, $first + $next - 1, $first + $next);
            }
        }
        array_unshift($kept, 0);
        unset($kept[0]);

        return [$xs, $ys, $qs, $kept];
    }
}
