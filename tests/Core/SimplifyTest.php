<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;
use VineShelf\Simplify\Clustering;
use VineShelf\Simplify\Collapsing;
use VineShelf\Simplify\Surface;

final class SimplifyTest extends TestCase
{
    /** @return iterable<string, array{\Closure(): Shape, float}> a mesh, and how far a version with a tenth of it may be at most, metres */
    public static function meshes(): iterable
    {
        yield 'a ball' => [static fn (): Shape => self::ball(18, 36, static fn (float $p, float $t): float => 0.9), 0.08];
        yield 'a bumpy ball' => [
            static fn (): Shape => self::ball(20, 40, static fn (float $p, float $t): float => 0.8 + 0.1 * sin(5 * $p) * cos(4 * $t)),
            0.14,
        ];
        yield 'a sheet with a border' => [
            static fn (): Shape => self::sheet(20, static fn (float $x, float $y): float => 0.2 * sin(3 * $x) * cos(2 * $y), 1),
            0.09,
        ];
        yield 'a sheet of two materials' => [
            static fn (): Shape => self::sheet(20, static fn (float $x, float $y): float => 0.1 * $x * $y, 2),
            0.05,
        ];
        yield 'a box of many squares' => [static fn (): Shape => self::block(12), 1e-3];
    }

    /** @param \Closure(): Shape $make */
    #[DataProvider('meshes')]
    public function test_versions_stay_near_keep_borders_and_seams_and_turn_nothing_over(\Closure $make, float $most): void
    {
        $surface = Surface::of($make());
        $careful = (new Collapsing($surface))->until(intdiv($surface->triangles(), 10));
        self::assertLessThanOrEqual(intdiv($surface->triangles(), 8), $careful->triangles);
        $fast = Clustering::of($surface, 0.22);
        self::assertLessThan(0.65 * $surface->triangles(), $fast->triangles);
        [$whole] = $surface->shape($surface->corners, $surface->pieces);
        foreach ([[$careful, $most], [$fast, 0.24]] as [$version, $allowed]) {
            $there = self::farthest($whole, $version->shape);
            self::assertLessThan($allowed, $there);
            self::assertLessThan($allowed, self::farthest($version->shape, $whole));
            self::assertGreaterThanOrEqual($there - 0.02, $version->error + 1e-6, 'the error that is said is not less than it is');
            self::assertSame(self::isClosed($whole), self::isClosed($version->shape), 'what was closed is closed, what was open is not');
            self::assertEqualsWithDelta(
                self::borderLength($whole),
                self::borderLength($version->shape),
                0.12 * self::borderLength($whole) + 1e-6,
            );
            self::assertEqualsWithDelta(self::seamLength($whole, range(0, 9)), self::seamLength($version->shape, $version->from), 0.1);
            self::assertSame(0, self::turned($whole, $version->shape, $allowed), $version === $fast ? 'fast' : 'careful');
        }
    }

    public function test_a_box_of_many_squares_becomes_twelve_triangles_and_keeps_its_corners(): void
    {
        $version = (new Collapsing(Surface::of(self::block(10))))->until(12);

        self::assertSame(12, $version->triangles);
        self::assertEqualsWithDelta(0.0, $version->error, 1e-4);
        self::assertEqualsWithDelta(0.0, self::farthest(self::block(10), $version->shape), 1e-4);
    }

    public function test_several_versions_come_from_one_run_each_coarser_than_the_one_before(): void
    {
        $surface = Surface::of(self::ball(24, 48, static fn (float $p, float $t): float => 0.9));
        $collapsing = new Collapsing($surface);
        $before = $surface->triangles();
        $error = 0.0;
        foreach ([2, 4, 8, 16] as $share) {
            $version = $collapsing->until(intdiv($surface->triangles(), $share));
            self::assertLessThan($before, $version->triangles);
            self::assertGreaterThanOrEqual($error, $version->error * 1.5);
            [$before, $error] = [$version->triangles, $version->error];
        }
        // By error instead: nothing moves farther than is allowed at once.
        self::assertGreaterThan($surface->triangles() / 2, (new Collapsing($surface))->until(0, 1e-4)->triangles);
    }

    public function test_the_error_that_is_said_is_how_far_the_places_of_the_mesh_are(): void
    {
        mt_srand(9);
        for ($round = 0; $round < 5; $round++) {
            $shape = self::ball(10, 20, static fn (float $p, float $t): float => 0.7 + 0.2 * sin((2 + $round) * $p) * cos(3 * $t));
            $surface = Surface::of($shape);
            $version = (new Collapsing($surface))->until(mt_rand(20, 150));
            $most = 0.0;
            $triangles = self::triangles($version->shape);
            foreach ($surface->x as $at => $x) {
                $least = INF;
                foreach ($triangles as $triangle) {
                    $least = min($least, self::distance([$x, $surface->y[$at], $surface->z[$at]], $triangle));
                }
                $most = max($most, $least);
            }
            self::assertGreaterThanOrEqual($most - 1e-9, $version->error);
            self::assertLessThan(1.6 * $most + 1e-9, $version->error, 'and not much more');
        }
    }

    public function test_soup_comes_out_like_what_it_was_made_of(): void
    {
        mt_srand(4);
        $ball = self::ball(24, 48, static fn (float $p, float $t): float => 0.9);
        $soup = self::soup($ball);
        self::assertSame(Surface::of($ball)->triangles(), Surface::of($soup)->triangles());
        $version = (new Collapsing(Surface::of($soup)))->until(200);
        self::assertLessThan(260, $version->triangles);
        self::assertLessThan(0.08, self::farthest($ball, $version->shape));
        self::assertTrue(self::isClosed($version->shape));
    }

    public function test_a_thousand_random_and_broken_meshes_end_well(): void
    {
        mt_srand(5);
        for ($round = 0; $round < 1000; $round++) {
            $shape = self::broken();
            $surface = Surface::of($shape);
            $goal = mt_rand(0, max(0, $surface->triangles()));
            foreach (
                [(new Collapsing($surface))->until($goal), Clustering::of($surface, [0.0, 1e-4, 0.1, 0.5, 9.0][mt_rand(0, 4)])] as $version
            ) {
                self::assertLessThanOrEqual($surface->triangles(), $version->triangles);
                self::assertTrue(is_finite($version->error) && $version->error >= 0.0 && $version->error < 8.0);
                self::assertSame($version->triangles, array_sum(array_map(self::trianglesOf(...), $version->shape->pieces)));
                foreach ($version->shape->pieces as $piece) {
                    self::assertLessThan(
                        intdiv(strlen($piece['positions']), 8),
                        max((array) unpack($piece['wide'] ? 'V*' : 'v*', $piece['indices'])),
                    );
                }
            }
        }
        $nothing = Surface::of(new Shape([1.0, 1.0, 1.0], []));
        self::assertSame([0, 0], [(new Collapsing($nothing))->until(0)->triangles, Clustering::of($nothing, 1.0)->triangles]);
    }

    /** @param array{positions: string, indices: string, wide: bool, kind: PrimitiveKind} $piece */
    private static function trianglesOf(array $piece): int
    {
        return intdiv(strlen($piece['indices']), $piece['wide'] ? 12 : 6);
    }

    /** Random triangles, many without an area, some places far more often than others, lines among them. */
    private static function broken(): Shape
    {
        $pieces = [];
        for ($piece = mt_rand(0, 3); $piece > 0; $piece--) {
            $vertices = mt_rand(1, 40);
            $step = [1, 5, 3000, 20000][mt_rand(0, 3)];
            $places = '';
            for ($vertex = 0; $vertex < $vertices; $vertex++) {
                $one = static fn (): int => max(-32767, min(32767, $step * mt_rand(-3, 3)));
                $places .= pack('s4', $one(), $one(), mt_rand(0, 2) === 0 ? 0 : $one(), 0);
            }
            $kind = mt_rand(0, 5) === 0 ? PrimitiveKind::Lines : PrimitiveKind::Triangles;
            $indices = array_map(static fn (): int => mt_rand(0, $vertices - 1), range(1, 6 * mt_rand(1, 40)));
            $pieces[] = ['kind' => $kind, 'positions' => $places, 'indices' => pack('v*', ...$indices), 'wide' => false];
        }

        return new Shape([mt_rand(1, 300) / 100, 1.0, mt_rand(1, 300) / 100], $pieces);
    }

    /** @param \Closure(float, float): float $radius */
    private static function ball(int $rings, int $around, \Closure $radius): Shape
    {
        $places = $indices = [];
        for ($ring = 0; $ring <= $rings; $ring++) {
            for ($at = 0; $at < $around; $at++) {
                [$polar, $turn] = [(M_PI * $ring) / $rings, (2 * M_PI * $at) / $around];
                $far = $radius($polar, $ring === 0 || $ring === $rings ? 0.0 : $turn);
                array_push($places, $far * sin($polar) * cos($turn), $far * sin($polar) * sin($turn), $far * cos($polar));
                if ($ring < $rings) {
                    [$a, $b] = [$ring * $around + $at, $ring * $around + (($at + 1) % $around)];
                    array_push($indices, $a, $a + $around, $b, $b, $a + $around, $b + $around);
                }
            }
        }

        return self::shape([[$places, $indices]]);
    }

    /** @param \Closure(float, float): float $height @param int $materials stripes of pieces, side by side */
    private static function sheet(int $steps, \Closure $height, int $materials): Shape
    {
        $pieces = [];
        for ($piece = 0; $piece < $materials; $piece++) {
            $places = $indices = [];
            $wide = intdiv($steps, $materials);
            for ($i = $piece * $wide; $i <= ($piece + 1) * $wide; $i++) {
                for ($j = 0; $j <= $steps; $j++) {
                    [$x, $y] = [(2 * $i) / $steps - 1, (2 * $j) / $steps - 1];
                    array_push($places, 0.95 * $x, 0.95 * $y, $height($x, $y));
                    if ($i < ($piece + 1) * $wide && $j < $steps) {
                        $a = ($i - $piece * $wide) * ($steps + 1) + $j;
                        array_push($indices, $a, $a + $steps + 1, $a + 1, $a + 1, $a + $steps + 1, $a + $steps + 2);
                    }
                }
            }
            $pieces[] = [$places, $indices];
        }

        return self::shape($pieces);
    }

    private static function block(int $steps): Shape
    {
        $places = $indices = [];
        foreach ([[0, 1, 2], [1, 2, 0], [2, 0, 1]] as [$u, $v, $w]) {
            foreach ([1, -1] as $side) {
                $first = intdiv(count($places), 3);
                for ($i = 0; $i <= $steps; $i++) {
                    for ($j = 0; $j <= $steps; $j++) {
                        $place = [0.0, 0.0, 0.0];
                        $place[$u] = 0.8 * ((2 * $i) / $steps - 1);
                        $place[$v] = 0.8 * $side * ((2 * $j) / $steps - 1);
                        $place[$w] = 0.8 * $side;
                        array_push($places, ...$place);
                        if ($i < $steps && $j < $steps) {
                            $a = $first + $i * ($steps + 1) + $j;
                            array_push($indices, $a, $a + $steps + 1, $a + 1, $a + 1, $a + $steps + 1, $a + $steps + 2);
                        }
                    }
                }
            }
        }

        return self::shape([[$places, $indices]]);
    }

    /** @param list<array{list<float>, list<int>}> $pieces */
    private static function shape(array $pieces): Shape
    {
        return new Shape(
            [1.0, 1.0, 1.0],
            array_map(static function (array $piece): array {
                $steps = [];
                foreach (array_chunk($piece[0], 3) as $place) {
                    array_push($steps, ...array_map(static fn (float $value): int => (int) round(32767 * $value), $place));
                    $steps[] = 0;
                }

                return [
                    'kind' => PrimitiveKind::Triangles,
                    'positions' => pack('s*', ...$steps),
                    'indices' => pack('v*', ...$piece[1]),
                    'wide' => false,
                ];
            }, $pieces),
        );
    }

    /** Corners of its own for each triangle, some triangles twice, some without an area. */
    private static function soup(Shape $shape): Shape
    {
        $places = $indices = [];
        foreach (self::triangles($shape) as $triangle) {
            for ($times = mt_rand(0, 5) === 0 ? 2 : 1; $times > 0; $times--) {
                foreach ($times === 2 ? array_reverse($triangle) : $triangle as $place) {
                    $indices[] = intdiv(count($places), 3);
                    array_push($places, ...$place);
                }
                if (mt_rand(0, 9) === 0) {
                    $last = count($indices) - 1;
                    array_push($indices, $indices[$last], $indices[$last], $indices[$last - 1]);
                }
            }
        }

        return self::shape([[$places, $indices]]);
    }

    /** @return list<array{list<float>, list<float>, list<float>}> those with an area */
    private static function triangles(Shape $shape): array
    {
        $triangles = [];
        foreach ($shape->pieces as $piece) {
            $n = array_values((array) unpack('s*', $piece['positions']));
            foreach (array_chunk(array_values((array) unpack($piece['wide'] ? 'V*' : 'v*', $piece['indices'])), 3) as $corners) {
                $places = array_map(
                    static fn (int $corner): array => [
                        ($n[4 * $corner] * $shape->scale[0]) / 32767,
                        ($n[4 * $corner + 1] * $shape->scale[1]) / 32767,
                        ($n[4 * $corner + 2] * $shape->scale[2]) / 32767,
                    ],
                    $corners,
                );
                if ($places[0] !== $places[1] && $places[1] !== $places[2] && $places[2] !== $places[0]) {
                    $triangles[] = $places;
                }
            }
        }

        return $triangles;
    }

    /** The greatest distance of points on one surface from the other, by trying 60 of them against every triangle. */
    private static function farthest(Shape $from, Shape $to): float
    {
        $triangles = self::triangles($from);
        $others = self::triangles($to);
        $most = 0.0;
        for ($try = 0; $try < 60; $try++) {
            [$a, $b, $c] = $triangles[mt_rand(0, count($triangles) - 1)];
            [$u, $v] = [mt_rand(0, 100) / 100, mt_rand(0, 100) / 100];
            [$u, $v] = $u + $v > 1 ? [1 - $u, 1 - $v] : [$u, $v];
            $point = array_map(static fn (int $axis): float => $a[$axis] + $u * ($b[$axis] - $a[$axis]) + $v * ($c[$axis] - $a[$axis]), [
                0,
                1,
                2,
            ]);
            $least = INF;
            foreach ($others as $other) {
                $least = min($least, self::distance($point, $other));
            }
            $most = max($most, $least);
        }

        return $most;
    }

    /**
     * How far a point is from a triangle: from the plane, if it stands over it, and from each of its sides.
     *
     * @param list<float>                                   $p
     * @param array{list<float>, list<float>, list<float>} $triangle
     */
    private static function distance(array $p, array $triangle): float
    {
        $least = INF;
        foreach ([[0, 1], [1, 2], [2, 0]] as [$from, $to]) {
            $along = self::minus($triangle[$to], $triangle[$from]);
            $share = self::dot(self::minus($p, $triangle[$from]), $along) / max(1e-30, self::dot($along, $along));
            $share = max(0.0, min(1.0, $share));
            $foot = array_map(static fn (int $axis): float => $triangle[$from][$axis] + $share * $along[$axis], [0, 1, 2]);
            $least = min($least, sqrt(self::dot(self::minus($p, $foot), self::minus($p, $foot))));
        }
        $normal = self::cross(self::minus($triangle[1], $triangle[0]), self::minus($triangle[2], $triangle[0]));
        $square = self::dot($normal, $normal);
        if ($square > 1e-24) {
            $isOver = true;
            foreach ([[0, 1], [1, 2], [2, 0]] as [$from, $to]) {
                $side = self::cross(self::minus($triangle[$to], $triangle[$from]), self::minus($p, $triangle[$from]));
                $isOver = $isOver && self::dot($side, $normal) >= 0;
            }
            $least = $isOver ? min($least, abs(self::dot(self::minus($p, $triangle[0]), $normal)) / sqrt($square)) : $least;
        }

        return $least;
    }

    /** @return array<string, array{int, float, array<int, true>}> of each edge: triangles, length, and the pieces that meet there */
    private static function edges(Shape $shape): array
    {
        $edges = [];
        foreach ($shape->pieces as $index => $piece) {
            foreach (self::triangles(new Shape($shape->scale, [$piece])) as $triangle) {
                foreach ([[0, 1], [1, 2], [2, 0]] as [$from, $to]) {
                    $ends = [json_encode($triangle[$from]), json_encode($triangle[$to])];
                    sort($ends);
                    $way = self::minus($triangle[$from], $triangle[$to]);
                    $edge = $edges[implode($ends)] ?? [0, sqrt(self::dot($way, $way)), []];
                    $edges[implode($ends)] = [$edge[0] + 1, $edge[1], $edge[2] + [$index => true]];
                }
            }
        }

        return $edges;
    }

    private static function isClosed(Shape $shape): bool
    {
        return array_filter(self::edges($shape), static fn (array $edge): bool => $edge[0] % 2 === 1) === [];
    }

    private static function borderLength(Shape $shape): float
    {
        return array_sum(array_map(static fn (array $edge): float => $edge[0] === 1 ? $edge[1] : 0.0, self::edges($shape)));
    }

    /** @param array<int, int> $from the piece of the mesh that each piece comes from */
    private static function seamLength(Shape $shape, array $from): float
    {
        return array_sum(
            array_map(
                static fn (array $edge): float => count(
                    array_unique(array_map(static fn (int $piece): int => $from[$piece], array_keys($edge[2]))),
                ) > 1
                    ? $edge[1]
                    : 0.0,
                self::edges($shape),
            ),
        );
    }

    /** How many of 60 triangles face against everything of the mesh that is near. */
    private static function turned(Shape $whole, Shape $version, float $near): int
    {
        $originals = self::triangles($whole);
        $triangles = self::triangles($version);
        $turned = 0;
        for ($try = 0; $try < 60; $try++) {
            $triangle = $triangles[mt_rand(0, count($triangles) - 1)];
            $middle = array_map(static fn (int $axis): float => ($triangle[0][$axis] + $triangle[1][$axis] + $triangle[2][$axis]) / 3, [
                0,
                1,
                2,
            ]);
            $normal = self::cross(self::minus($triangle[1], $triangle[0]), self::minus($triangle[2], $triangle[0]));
            $isTurned = true;
            foreach ($originals as $original) {
                $other = self::cross(self::minus($original[1], $original[0]), self::minus($original[2], $original[0]));
                $isTurned = $isTurned && (self::dot($normal, $other) < 0 || self::distance($middle, $original) > $near);
            }
            $turned += $isTurned ? 1 : 0;
        }

        return $turned;
    }

    /** @param list<float> $a @param list<float> $b @return list<float> */
    private static function minus(array $a, array $b): array
    {
        return [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    }

    /** @param list<float> $a @param list<float> $b */
    private static function dot(array $a, array $b): float
    {
        return $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
    }

    /** @param list<float> $a @param list<float> $b @return list<float> */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }
}
