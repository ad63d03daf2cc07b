<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;

/** What the pieces of shapes are made of, as numbers: unpacked once where it is small, in windows where it is not. */
final class Pieces
{
    /** Vertices worked on at a time. */
    public const WINDOW = 8192;

    /** Bytes of indices that are searched sooner than looked up. */
    private const SHORT = 2048;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> places of small pieces */
    private \WeakMap $places;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> */
    private \WeakMap $corners;

    /** @var \WeakMap<Shape, array<int, array<int, int>>> by vertex that a primitive of a large piece is made of */
    private \WeakMap $used;

    /** @var \WeakMap<Shape, list<array{int, int, int}>> */
    private \WeakMap $few;

    public function __construct()
    {
        $this->few = new \WeakMap;
        $this->used = new \WeakMap;
        $this->places = new \WeakMap;
        $this->corners = new \WeakMap;
    }

    /** @return list<array{int, int, int}> quantized places of each piece's first, middle and last vertex, if anything is made of them */
    public function few(Shape $shape): array
    {
        if (isset($this->few[$shape])) {
            return $this->few[$shape];
        }
        $few = [];
        foreach ($shape->pieces as $piece => ['positions' => $positions]) {
            $last = intdiv(strlen($positions), 8) - 1;
            foreach ($last < 0 ? [] : array_unique([0, $last >> 1, $last]) as $vertex) {
                if ($this->uses($shape, $piece, $vertex)) {
                    /** @var array{1: int, 2: int, 3: int} $n */
                    $n = unpack('s3', $positions, $vertex * 8);
                    $few[] = [$n[1], $n[2], $n[3]];
                }
            }
        }

        return $this->few[$shape] = $few;
    }

    /** Whether a primitive of the piece is made of a vertex. */
    public function uses(Shape $shape, int $piece, int $vertex): bool
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
    public function windows(Shape $shape, int $piece): iterable
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
    public function corners(Shape $shape, int $piece): array
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
    public static function size(PrimitiveKind $kind): int
    {
        return match ($kind) {
            PrimitiveKind::Triangles => 3,
            PrimitiveKind::Lines => 2,
            PrimitiveKind::Points => 1,
        };
    }
}
