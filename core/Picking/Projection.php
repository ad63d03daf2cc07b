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

    /** Bytes of indices that are searched sooner than looked up. */
    private const SHORT = 2048;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> places of small pieces, unpacked once */
    private \WeakMap $places;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> */
    private \WeakMap $corners;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> by vertex that a primitive of a large piece is made of */
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
            $corners = $this->corners($shape, $index);
            $size = self::size($piece['kind']);
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
            $corners = $this->corners($shape, $index);
            $size = self::size($piece['kind']);
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
     * Whether the first, a middle or the last vertex of a piece is in the region: mostly that is so when any is, and costs little to see.
     *
     * @param Transform $rows
     */
    private function oneOfFewIsIn(Shape $shape, array $rows): bool
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i, $j, $k, $l] = $rows;
        foreach ($shape->pieces as $piece => ['positions' => $positions]) {
            $last = intdiv(strlen($positions), 8) - 1;
            foreach ($last < 0 ? [] : array_unique([0, $last >> 1, $last]) as $vertex) {
                /** @var array{1: int, 2: int, 3: int} $n */
                $n = unpack('s3', $positions, $vertex * 8);
                [1 => $x, 2 => $y, 3 => $z] = $n;
                $w = $i * $x + $j * $y + $k * $z + $l;
                if (
                    $w >= $this->camera->near &&
                    $this->region->has(($a * $x + $b * $y + $c * $z + $d) / $w, ($e * $x + $f * $y + $g * $z + $h) / $w) &&
                    $this->uses($shape, $piece, $vertex)
                ) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * Puts the vertices of a piece into the picture, and looks how they lie: when one in the region ($inside false) or one that is not
     * (true) settles the question, the others are left. Vertices that nothing is made of settle nothing.
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
        $isBig = strlen($shape->pieces[$piece]['positions']) > self::WINDOW * 8;
        foreach ($this->windows($shape, $piece) as $n) {
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
                }
                $beside[] = $sides;
                $xs[] = $u;
                $ys[] = $v;
                $ws[] = $w;
            }
            // Of what is big, the others need not be worked out at all.
            if ($isBig && $this->oneSettles($shape, $piece, $inside, $from, $xs, $ys, $ws, $beside)) {
                return [$inside ? Region::OUT : Region::IN, $xs, $ys, $ws, $beside];
            }
        }
        $is = match (true) {
            $xs === [] || $ys === [] || $ws === [] => $inside ? Region::IN : Region::OUT,
            min($ws) < $near => Region::MIXED,
            default => $this->region->rectangleIsExactly(min($xs), min($ys), max($xs), max($ys)),
        };
        if ($is !== ($inside ? Region::IN : Region::OUT)) {
            $is = Region::MIXED;
            if (! $isBig && $this->oneSettles($shape, $piece, $inside, 0, $xs, $ys, $ws, $beside)) {
                $is = $inside ? Region::OUT : Region::IN;
            }
        }

        return [$is, $xs, $ys, $ws, $beside];
    }

    /**
     * Whether one of the vertices from some place on is in the region, or is not when $inside is true.
     *
     * @param list<float> $xs
     * @param list<float> $ys
     * @param list<float> $ws
     * @param list<int>   $beside
     */
    private function oneSettles(
        Shape $shape,
        int $piece,
        bool $inside,
        int $from,
        array $xs,
        array $ys,
        array $ws,
        array $beside,
    ): bool {
        $near = $this->camera->near;
        $region = $this->region;
        for ($vertex = $from, $count = count($ws); $vertex < $count; $vertex++) {
            $has = $beside[$vertex] === 0 && $ws[$vertex] >= $near && $region->has($xs[$vertex], $ys[$vertex]);
            if ($has !== $inside && $this->uses($shape, $piece, $vertex)) {
                return true;
            }
        }

        return false;
    }

    /** Whether a primitive of the piece is made of a vertex. */
    private function uses(Shape $shape, int $piece, int $vertex): bool
    {
        ['kind' => $kind, 'indices' => $indices, 'wide' => $wide] = $shape->pieces[$piece];
        $bytes = $wide ? 4 : 2;
        $end = strlen($indices) - (strlen($indices) % ($bytes * self::size($kind)));
        if ($end > self::SHORT) {
            $known = $this->used[$shape] ?? [];
            if (! isset($known[$piece])) {
                $known[$piece] = array_flip(array_slice($this->corners($shape, $piece), 0, intdiv($end, $bytes)));
                $this->used[$shape] = $known;
            }

            return isset($known[$piece][$vertex]);
        }
        $sought = pack($wide ? 'V' : 'v', $vertex);
        $at = strpos($indices, $sought);
        while ($at !== false && $at % $bytes !== 0) {
            $at = strpos($indices, $sought, $at + 1);
        }

        return $at !== false && $at < $end;
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
