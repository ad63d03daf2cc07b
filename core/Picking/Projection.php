<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Shape;

/**
 * One placement of a mesh, seen through a camera, against a region: exact to the triangle.
 *
 * @phpstan-import-type Transform from Affine
 */
final class Projection
{
    private readonly Pieces $pieces;

    public function __construct(private readonly Camera $camera, private readonly Region $region)
    {
        $this->pieces = new Pieces;
    }

    /**
     * Whether any part of the shape in front of the camera touches the region.
     *
     * @param Transform $placement
     */
    public function touches(Shape $shape, array $placement): bool
    {
        $rows = $this->rows($shape, $placement);
        if ($this->oneOfFewIsIn($shape, $rows)) {
            return true;
        }
        $near = $this->camera->near;
        $region = $this->region;
        $window = $this->window($rows);
        if ($window === null) {
            return false;
        }
        foreach ($shape->pieces as $index => $piece) {
            [$is, $xs, $ys, $ws, $beside] = $this->project($shape, $index, $rows, $window, false);
            if ($is === Region::IN) {
                return true;
            }
            if ($is === Region::OUT) {
                continue;
            }
            $behind = $ws !== [] && min($ws) < $near;
            $corners = $this->pieces->corners($shape, $index);
            $size = Pieces::size($piece['kind']);
            for ($at = 1, $count = count($corners); $at + $size - 1 <= $count; $at += $size) {
                $a = $corners[$at];
                if ($size === 3) {
                    $b = $corners[$at + 1];
                    $c = $corners[$at + 2];
                    // Most lie wholly on one side of where the region can be.
                    if (($beside[$a] & $beside[$b] & $beside[$c]) !== 0) {
                        continue;
                    }
                    if (! $behind || ($ws[$a] >= $near && $ws[$b] >= $near && $ws[$c] >= $near)) {
                        // None of its corners is in the region.
                        if ($region->crosses([$xs[$a], $xs[$b], $xs[$c]], [$ys[$a], $ys[$b], $ys[$c]])) {
                            return true;
                        }

                        continue;
                    }
                }
                [$x, $y] = $this->inFront($corners, $at, $size, $xs, $ys, $ws);
                if ($x !== [] && $y !== [] && $region->touches($x, $y)) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * Whether the whole shape is in front of the camera and in the region.
     *
     * @param Transform $placement
     */
    public function isInside(Shape $shape, array $placement): bool
    {
        $rows = $this->rows($shape, $placement);
        $region = $this->region;
        $window = $this->window($rows);
        if ($window === null) {
            return false;
        }
        $any = false;
        foreach ($shape->pieces as $index => $piece) {
            [$is, $xs, $ys] = $this->project($shape, $index, $rows, $window, true);
            if ($is === Region::OUT) {
                return false;
            }
            $corners = $this->pieces->corners($shape, $index);
            $size = Pieces::size($piece['kind']);
            $count = count($corners) - (count($corners) % $size);
            if ($is === Region::IN || $region->isConvex) {
                $any = $any || $count > 0;

                continue;
            }
            for ($at = 1; $at <= $count; $at += $size) {
                $any = true;
                if ($size === 3) {
                    [$x1, $x2, $x3] = [$xs[$corners[$at]], $xs[$corners[$at + 1]], $xs[$corners[$at + 2]]];
                    [$y1, $y2, $y3] = [$ys[$corners[$at]], $ys[$corners[$at + 1]], $ys[$corners[$at + 2]]];
                    if (
                        $region->rectangleIs(min($x1, $x2, $x3), min($y1, $y2, $y3), max($x1, $x2, $x3), max($y1, $y2, $y3)) === Region::IN
                    ) {
                        continue;
                    }
                }
                $x = [$xs[$corners[$at]]];
                $y = [$ys[$corners[$at]]];
                for ($corner = $at + 1; $corner < $at + $size; $corner++) {
                    $x[] = $xs[$corners[$corner]];
                    $y[] = $ys[$corners[$corner]];
                }
                if (! $region->covers($x, $y)) {
                    return false;
                }
            }
        }

        return $any;
    }

    /**
     * @param array<int, int>  $corners
     * @param list<float> $xs
     * @param list<float> $ys
     * @param list<float> $ws
     *
     * @return array{list<float>, list<float>}
     */
    private function inFront(array $corners, int $at, int $size, array $xs, array $ys, array $ws): array
    {
        $x = $y = $w = [];
        for ($corner = $at; $corner < $at + $size; $corner++) {
            $vertex = $corners[$corner];
            // Places in front were divided already; the others were left as they are.
            $divided = $ws[$vertex] >= $this->camera->near;
            $x[] = $divided ? $xs[$vertex] * $ws[$vertex] : $xs[$vertex];
            $y[] = $divided ? $ys[$vertex] * $ws[$vertex] : $ys[$vertex];
            $w[] = $ws[$vertex];
        }

        return Clip::near($x, $y, $w, $this->camera->near);
    }

    /**
     * @param Transform $placement
     *
     * @return Transform camera rows for the shape's quantized places
     */
    private function rows(Shape $shape, array $placement): array
    {
        $m = Affine::product($this->camera->rows, $placement);
        [$x, $y, $z] = $shape->scale;
        [$x, $y, $z] = [$x / Shape::STEPS, $y / Shape::STEPS, $z / Shape::STEPS];

        return [
            $m[0] * $x,
            $m[1] * $y,
            $m[2] * $z,
            $m[3],
            $m[4] * $x,
            $m[5] * $y,
            $m[6] * $z,
            $m[7],
            $m[8] * $x,
            $m[9] * $y,
            $m[10] * $z,
            $m[11],
        ];
    }

    /**
     * Where the region can be, of where the shape can be in the picture.
     *
     * @param Transform $rows camera rows for the shape's quantized places
     *
     * @return array{float, float, float, float}|null left, top, right, bottom; null for nowhere
     */
    private function window(array $rows): ?array
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i, $j, $k, $l] = $rows;
        // A little more than the largest place, so that rounding hides nothing.
        $most = Shape::STEPS * 1.0001;
        $least = $l - (abs($i) + abs($j) + abs($k)) * $most;
        if ($least < $this->camera->near) {
            return [-INF, -INF, INF, INF];
        }
        $u = $d / $l;
        $v = $h / $l;
        $across = ((abs($a - $u * $i) + abs($b - $u * $j) + abs($c - $u * $k)) * $most) / $least + 1e-6;
        $along = ((abs($e - $v * $i) + abs($f - $v * $j) + abs($g - $v * $k)) * $most) / $least + 1e-6;

        return $this->region->within($u - $across, $v - $along, $u + $across, $v + $along);
    }

    /**
     * Whether one of a few of the shape's vertices is in the region: mostly that is so when any is, and costs little to see.
     *
     * @param Transform $rows
     */
    private function oneOfFewIsIn(Shape $shape, array $rows): bool
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i, $j, $k, $l] = $rows;
        $near = $this->camera->near;
        foreach ($this->pieces->few($shape) as [$x, $y, $z]) {
            $w = $i * $x + $j * $y + $k * $z + $l;
            if ($w >= $near && $this->region->has(($a * $x + $b * $y + $c * $z + $d) / $w, ($e * $x + $f * $y + $g * $z + $h) / $w)) {
                return true;
            }
        }

        return false;
    }

    /**
     * Puts the vertices of a piece into the picture, and looks how they lie: the first in the region settles whether the piece touches it
     * ($inside false), one that is not in it that the piece is not wholly in it (true), and the others are left. Vertices that nothing is
     * made of settle nothing.
     *
     * @param Transform                         $rows
     * @param array{float, float, float, float} $window left, top, right, bottom of where the region can be
     *
     * @return array{int, list<float>, list<float>, list<float>, list<int>} how the piece lies to the region, MIXED when vertices alone
     *     cannot tell; of each vertex x and y, in pixels where it is in front of the camera and else before the division; its depth; and
     *     beyond which sides of the window it lies in front of the camera: 1 left, 2 right, 4 top, 8 bottom
     */
    private function project(Shape $shape, int $piece, array $rows, array $window, bool $inside): array
    {
        $xs = $ys = $ws = $beside = [];
        [$left, $top, $right, $bottom] = $window;
        [$a, $b, $c, $d, $e, $f, $g, $h, $i, $j, $k, $l] = $rows;
        $near = $this->camera->near;
        $region = $this->region;
        $isBig = strlen($shape->pieces[$piece]['positions']) > Pieces::WINDOW * 8;
        foreach ($this->pieces->windows($shape, $piece) as $n) {
            $from = count($ws);
            for ($at = 1, $end = count($n); $at < $end; $at += 4) {
                $x = $n[$at];
                $y = $n[$at + 1];
                $z = $n[$at + 2];
                $u = $a * $x + $b * $y + $c * $z + $d;
                $v = $e * $x + $f * $y + $g * $z + $h;
                $w = $i * $x + $j * $y + $k * $z + $l;
                $sides = 0;
                if ($w >= $near) {
                    $u /= $w;
                    $v /= $w;
                    $sides = ($u < $left ? 1 : ($u > $right ? 2 : 0)) | ($v < $top ? 4 : ($v > $bottom ? 8 : 0));
                    if (! $inside && $sides === 0 && $region->has($u, $v) && $this->pieces->uses($shape, $piece, count($ws))) {
                        return [Region::IN, $xs, $ys, $ws, $beside];
                    }
                }
                $beside[] = $sides;
                $xs[] = $u;
                $ys[] = $v;
                $ws[] = $w;
            }
            // Of what is big, the others need not be worked out at all.
            if ($inside && $isBig && $this->oneIsNotIn($shape, $piece, $from, $xs, $ys, $ws, $beside)) {
                return [Region::OUT, $xs, $ys, $ws, $beside];
            }
        }
        $is = match (true) {
            $xs === [] || $ys === [] || $ws === [] => $inside ? Region::IN : Region::OUT,
            min($ws) < $near => Region::MIXED,
            default => $region->rectangleIsExactly(min($xs), min($ys), max($xs), max($ys)),
        };
        if ($is !== ($inside ? Region::IN : Region::OUT)) {
            $is =
                $inside && ! $isBig && $this->oneIsNotIn($shape, $piece, 0, $xs, $ys, $ws, $beside) ? Region::OUT : Region::MIXED;
        }

        return [$is, $xs, $ys, $ws, $beside];
    }

    /**
     * Whether one of the vertices from some place on is not in the region.
     *
     * @param list<float> $xs
     * @param list<float> $ys
     * @param list<float> $ws
     * @param list<int>   $beside
     */
    private function oneIsNotIn(Shape $shape, int $piece, int $from, array $xs, array $ys, array $ws, array $beside): bool
    {
        $near = $this->camera->near;
        $region = $this->region;
        for ($vertex = $from, $count = count($ws); $vertex < $count; $vertex++) {
            $has = $beside[$vertex] === 0 && $ws[$vertex] >= $near && $region->has($xs[$vertex], $ys[$vertex]);
            if (! $has && $this->pieces->uses($shape, $piece, $vertex)) {
                return true;
            }
        }

        return false;
    }
}
