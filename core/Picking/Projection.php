<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;

/**
 * One placement of a mesh, seen through a camera, against a region: exact to the triangle.
 *
 * @phpstan-import-type Transform from Affine
 */
final class Projection
{
    /** Vertices worked on at a time. */
    private const WINDOW = 8192;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> places of small pieces, unpacked once */
    private \WeakMap $places;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> */
    private \WeakMap $corners;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> by vertex that a primitive is made of */
    private \WeakMap $used;

    public function __construct(private readonly Camera $camera, private readonly Region $region)
    {
        $this->used = new \WeakMap;
        $this->places = new \WeakMap;
        $this->corners = new \WeakMap;
    }

    /**
     * Whether any part of the shape in front of the camera touches the region.
     *
     * @param Transform $placement
     */
    public function touches(Shape $shape, array $placement): bool
    {
        $rows = $this->rows($shape, $placement);
        $near = $this->camera->near;
        $region = $this->region;
        $window = $this->window($rows);
        if ($window === null) {
            return false;
        }
        [$left, $top, $right, $bottom] = $window;
        foreach ($shape->pieces as $index => $piece) {
            $xs = $ys = $ws = [];
            if (! $this->project($shape, $index, $rows, $window, false, $xs, $ys, $ws)) {
                return true;
            }
            $behind = $ws !== [] && min($ws) < $near;
            if (
                ! $behind &&
                ($xs === [] || $ys === [] || $region->rectangleIsExactly(min($xs), min($ys), max($xs), max($ys)) === Region::OUT)
            ) {
                continue;
            }
            $corners = $this->corners($shape, $index);
            $size = self::size($piece['kind']);
            for ($at = 1, $count = count($corners); $at + $size - 1 <= $count; $at += $size) {
                $a = $corners[$at];
                if ($size === 3) {
                    $b = $corners[$at + 1];
                    $c = $corners[$at + 2];
                    if (! $behind || ($ws[$a] >= $near && $ws[$b] >= $near && $ws[$c] >= $near)) {
                        $x1 = $xs[$a];
                        $x2 = $xs[$b];
                        $x3 = $xs[$c];
                        $y1 = $ys[$a];
                        $y2 = $ys[$b];
                        $y3 = $ys[$c];
                        // Most pass by where the region can be at all.
                        if (
                            ($x1 < $left && $x2 < $left && $x3 < $left) ||
                            ($x1 > $right && $x2 > $right && $x3 > $right) ||
                            ($y1 < $top && $y2 < $top && $y3 < $top) ||
                            ($y1 > $bottom && $y2 > $bottom && $y3 > $bottom)
                        ) {
                            continue;
                        }
                        $is = $region->rectangleIs(
                            $x1 < $x2 ? ($x1 < $x3 ? $x1 : $x3) : ($x2 < $x3 ? $x2 : $x3),
                            $y1 < $y2 ? ($y1 < $y3 ? $y1 : $y3) : ($y2 < $y3 ? $y2 : $y3),
                            $x1 > $x2 ? ($x1 > $x3 ? $x1 : $x3) : ($x2 > $x3 ? $x2 : $x3),
                            $y1 > $y2 ? ($y1 > $y3 ? $y1 : $y3) : ($y2 > $y3 ? $y2 : $y3),
                        );
                        if ($is === Region::IN || ($is === Region::MIXED && $region->touches([$x1, $x2, $x3], [$y1, $y2, $y3]))) {
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
            $xs = $ys = $ws = [];
            if (! $this->project($shape, $index, $rows, $window, true, $xs, $ys, $ws)) {
                return false;
            }
            $corners = $this->corners($shape, $index);
            $size = self::size($piece['kind']);
            $count = count($corners) - (count($corners) % $size);
            if ($region->isConvex) {
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
     * Puts the vertices of a piece into the picture until one settles the question: one in the region when $inside is false, one that
     * is not when it is true. Vertices that nothing is made of settle nothing.
     *
     * @param Transform   $rows
     * @param array{float, float, float, float} $window left, top, right, bottom of where the region can be
     * @param list<float> $xs pixels where in front of the camera, else before the division
     * @param list<float> $ys likewise
     * @param list<float> $ws depth before the division
     *
     * @param-out list<float> $xs
     * @param-out list<float> $ys
     * @param-out list<float> $ws
     *
     * @return bool whether the question is still open
     */
    private function project(
        Shape $shape,
        int $piece,
        array $rows,
        array $window,
        bool $inside,
        array &$xs,
        array &$ys,
        array &$ws,
    ): bool {
        [$left, $top, $right, $bottom] = $window;
        [$a, $b, $c, $d, $e, $f, $g, $h, $i, $j, $k, $l] = $rows;
        $near = $this->camera->near;
        $region = $this->region;
        foreach ($this->windows($shape, $piece) as $n) {
            for ($at = 1, $end = count($n); $at < $end; $at += 4) {
                $x = $n[$at];
                $y = $n[$at + 1];
                $z = $n[$at + 2];
                $w = $i * $x + $j * $y + $k * $z + $l;
                if ($w >= $near) {
                    $u = ($a * $x + $b * $y + $c * $z + $d) / $w;
                    $v = ($e * $x + $f * $y + $g * $z + $h) / $w;
                    $has = $u >= $left && $u <= $right && $v >= $top && $v <= $bottom && $region->has($u, $v);
                    if ($has !== $inside && $this->uses($shape, $piece, count($ws))) {
                        return false;
                    }
                } else {
                    if ($inside && $this->uses($shape, $piece, count($ws))) {
                        return false;
                    }
                    $u = $a * $x + $b * $y + $c * $z + $d;
                    $v = $e * $x + $f * $y + $g * $z + $h;
                }
                $xs[] = $u;
                $ys[] = $v;
                $ws[] = $w;
            }
        }

        return true;
    }

    /** Whether a primitive of the piece is made of a vertex. */
    private function uses(Shape $shape, int $piece, int $vertex): bool
    {
        $known = $this->used[$shape] ?? [];
        if (! isset($known[$piece])) {
            $corners = $this->corners($shape, $piece);
            $size = self::size($shape->pieces[$piece]['kind']);
            $known[$piece] = array_flip(array_slice($corners, 0, count($corners) - (count($corners) % $size)));
            $this->used[$shape] = $known;
        }

        return isset($known[$piece][$vertex]);
    }

    /** @return iterable<array<int, int>> quantized places, counted from 1, four numbers each */
    private function windows(Shape $shape, int $piece): iterable
    {
        $positions = $shape->pieces[$piece]['positions'];
        if (strlen($positions) > self::WINDOW * 8) {
            foreach (str_split($positions, self::WINDOW * 8) as $window) {
                /** @var array<int, int> $n */
                $n = unpack('s*', $window);
                yield $n;
            }

            return;
        }
        $known = $this->places[$shape] ?? [];
        if (! isset($known[$piece])) {
            /** @var array<int, int> $n */
            $n = unpack('s*', $positions);
            $known[$piece] = $n;
            $this->places[$shape] = $known;
        }
        yield $known[$piece];
    }

    /** @return array<int, int> vertex numbers, counted from 1 */
    private function corners(Shape $shape, int $piece): array
    {
        $known = $this->corners[$shape] ?? [];
        if (isset($known[$piece])) {
            return $known[$piece];
        }
        /** @var array<int, int> $corners */
        $corners = unpack($shape->pieces[$piece]['wide'] ? 'V*' : 'v*', $shape->pieces[$piece]['indices']);
        if (count($corners) <= self::WINDOW * 8) {
            $known[$piece] = $corners;
            $this->corners[$shape] = $known;
        }

        return $corners;
    }

    /** @return int<1, 3> corners of one primitive */
    private static function size(PrimitiveKind $kind): int
    {
        return match ($kind) {
            PrimitiveKind::Triangles => 3,
            PrimitiveKind::Lines => 2,
            PrimitiveKind::Points => 1,
        };
    }
}
