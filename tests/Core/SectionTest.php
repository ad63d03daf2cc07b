<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\ShapedModel;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;
use VineShelf\Section\CutFaces;
use VineShelf\Section\CutRows;
use VineShelf\Section\CutShape;
use VineShelf\Section\Plane;
use VineShelf\Section\Section;

final class SectionTest extends TestCase
{
    public function test_a_box_that_is_cut_has_the_area_and_volume_that_the_formula_says(): void
    {
        mt_srand(1);
        for ($round = 0; $round < 60; $round++) {
            $half = [mt_rand(10, 300) / 100, mt_rand(10, 300) / 100, mt_rand(10, 300) / 100];
            $placement = self::placement();
            $shape = Shape::ofBox($half);
            // Across the box's own third axis, wherever it is turned to.
            $at = mt_rand(-90, 90) / 100;
            $plane = self::across($placement, [0.0, 0.0, $half[2] * $at]);
            $faces = (new CutFaces([$plane]))->of($shape, $placement)[0] ?? [];
            $area = array_sum(array_map(CutFaces::area(...), $faces));
            $columns = array_map(static fn (int $axis): array => [$placement[$axis], $placement[$axis + 4], $placement[$axis + 8]], [0, 1]);
            $expected = 4 * $half[0] * $half[1] * self::length(self::cross(...$columns));
            self::assertEqualsWithDelta($expected, $area, 1e-3 * $expected, "round $round");
            $whole = self::volume($shape, $placement, []);
            $sign = $whole < 0 ? -1 : 1;
            $whole *= $sign;
            $kept = $sign * self::volume(CutShape::of($shape, $placement, [$plane]), $placement, $faces, $sign);
            self::assertEqualsWithDelta(($whole * (1 + $at)) / 2, $kept, 2e-3 * $whole, "round $round");
        }
    }

    public function test_a_ball_that_is_cut_has_the_area_and_volume_that_the_formula_says_whichever_way_its_triangles_face(): void
    {
        mt_srand(2);
        $ball = self::ball(40, 80);
        for ($round = 0; $round < 12; $round++) {
            $radius = mt_rand(50, 200) / 100;
            $shape = new Shape([$radius, $radius, $radius], $ball->pieces);
            $normal = [mt_rand(-100, 100), mt_rand(-100, 100), mt_rand(1, 100)];
            $height = ($radius * mt_rand(-80, 80)) / 100;
            $plane = Plane::of([(float) $normal[0], (float) $normal[1], (float) $normal[2]], $height);
            $faces = (new CutFaces([$plane]))->of($shape, Affine::IDENTITY)[0] ?? [];
            $area = M_PI * ($radius ** 2 - $height ** 2);
            self::assertEqualsWithDelta($area, array_sum(array_map(CutFaces::area(...), $faces)), 0.02 * M_PI * $radius ** 2);
            $kept = self::volume(CutShape::of($shape, Affine::IDENTITY, [$plane]), Affine::IDENTITY, $faces);
            $above = $radius - $height;
            $cap = (M_PI * $above ** 2 * (3 * $radius - $above)) / 3;
            $whole = (4 / 3) * M_PI * $radius ** 3;
            self::assertEqualsWithDelta($whole - $cap, $kept, 0.02 * $whole);
            $soup = array_sum(array_map(CutFaces::area(...), (new CutFaces([$plane]))->of(self::soup($shape), Affine::IDENTITY)[0] ?? []));
            self::assertEqualsWithDelta($area, $soup, 0.02 * M_PI * $radius ** 2, 'triangles that face every way, doubled and unjoined');
        }
    }

    public function test_what_is_kept_of_a_ball_by_a_box_is_closed_all_round(): void
    {
        mt_srand(3);
        $shape = self::ball(24, 48);
        for ($round = 0; $round < 20; $round++) {
            $box = new Box(-mt_rand(10, 110) / 100, -mt_rand(10, 110) / 100, -mt_rand(10, 110) / 100, 0.31, 0.43, mt_rand(20, 110) / 100);
            $planes = [...Section::of($box)->planes(), Plane::of([1.0, 2.0, -0.5], mt_rand(-20, 60) / 100)];
            $sum = [0.0, 0.0, 0.0];
            foreach (self::triangles(CutShape::of($shape, Affine::IDENTITY, $planes), Affine::IDENTITY) as [$a, $b, $c]) {
                $sum = self::plus($sum, self::cross(self::minus($b, $a), self::minus($c, $a)));
            }
            foreach ((new CutFaces($planes))->of($shape, Affine::IDENTITY) as $at => $faces) {
                $area = 2 * array_sum(array_map(CutFaces::area(...), $faces));
                $sum = self::plus($sum, array_map(static fn (float $side): float => $side * $area, $planes[$at]->normal));
            }
            // The areas of whatever is closed, each along its normal, come to nothing.
            self::assertEqualsWithDelta(0.0, self::length($sum), 2e-3, "round $round");
        }
    }

    public function test_panes_are_not_filled_and_two_solids_that_touch_both_are(): void
    {
        $pane = new Shape(
            [1.0, 1.0, 1.0],
            [
                [
                    'kind' => PrimitiveKind::Triangles,
                    'positions' => pack('s*', -32767, 0, -32767, 0, 32767, 0, -32767, 0, 32767, 0, 32767, 0, -32767, 0, 32767, 0),
                    'indices' => pack('v*', 0, 1, 2, 0, 2, 3),
                    'wide' => false,
                ],
            ],
        );
        $faces = new CutFaces([Plane::of([0.0, 0.0, 1.0], 0.3)]);
        self::assertSame([], $faces->of($pane, Affine::IDENTITY));
        // A box, and one beside it in the same mesh: the wall that they share is there twice.
        $one = Shape::ofBox([1.0, 1.0, 1.0])->pieces[0];
        $moved = static function (int $x0, int $x1) use ($one): array {
            /** @var array<int, int> $n */
            $n = unpack('s*', $one['positions']);
            for ($at = 1; $at < count($n); $at += 4) {
                $n[$at] = $n[$at] < 0 ? $x0 : $x1;
            }

            return ['positions' => pack('s*', ...$n)] + $one;
        };
        $two = new Shape([1.0, 1.0, 1.0], [$moved(-32767, 0), $moved(0, 32767)]);
        self::assertEqualsWithDelta(4.0, array_sum(array_map(CutFaces::area(...), $faces->of($two, Affine::IDENTITY)[0])), 1e-3);
        // What only touches the plane from beyond leaves nothing there.
        self::assertSame([], (new CutFaces([Plane::of([0.0, 0.0, 1.0], -1.0)]))->of(Shape::ofBox([1.0, 1.0, 1.0]), Affine::IDENTITY));
    }

    public function test_which_objects_are_cut_agrees_with_looking_at_every_box(): void
    {
        mt_srand(4);
        for ($round = 0; $round < 25; $round++) {
            $model = ShapedModel::grow(mt_rand(1, 120));
            $scene = $model->facts->scene;
            [$x, $y, $z] = array_map(static fn (): float => mt_rand(-800, 800) / 100, range(0, 2));
            $section = Section::of(
                mt_rand(0, 2) === 0 ? null : new Box($x, $y, $z, $x + mt_rand(0, 900) / 100, $y + mt_rand(0, 900) / 100, $z + 4.0),
                mt_rand(0, 1) === 0 ? [] : [Plane::of([(float) mt_rand(-9, 9), (float) mt_rand(-9, 9), 1.0], mt_rand(-300, 300) / 100)],
            );
            $cut = CutRows::of($section, $model->facts);
            for ($row = 1; $row <= $scene->count(); $row++) {
                $box = $model->facts->box($row);
                $isDrawn = $model->meshes[$scene->number($row)] > 0;
                if ($box === null || ! $isDrawn) {
                    self::assertFalse($cut->gone->has($row) || $cut->across->has($row));

                    continue;
                }
                $isOut = $isAcross = false;
                foreach ($section->planes() as $plane) {
                    $beyond = [];
                    foreach (range(0, 7) as $corner) {
                        $beyond[] = $plane->beyond($box[$corner & 1 ? 3 : 0], $box[$corner & 2 ? 4 : 1], $box[$corner & 4 ? 5 : 2]);
                    }
                    $isOut = $isOut || min($beyond) > 1e-5;
                    $isAcross = $isAcross || max($beyond) > -1e-5;
                }
                if ($isOut) {
                    self::assertTrue($cut->gone->has($row), "round $round");
                } elseif (! $isAcross) {
                    self::assertFalse($cut->gone->has($row) || $cut->across->has($row), "round $round");
                }
            }
        }
    }

    public function test_a_section_is_kept_as_it_is_and_what_cannot_be_read_is_left_out(): void
    {
        $section = Section::of(new Box(1, 2, 3, 4, 5, 6), [Plane::of([0.0, 3.0, 4.0], 2.5)]);
        $back = Section::fromArray((array) json_decode((string) json_encode($section->turned(false)->toArray()), true));

        self::assertEquals($section->toArray()['planes'], $back->toArray()['planes']);
        self::assertSame([1.0, 2.0, 3.0, 4.0, 5.0, 6.0], $back->box?->toList());
        self::assertFalse($back->cuts());
        self::assertTrue($back->turned(true)->cuts());
        self::assertSame([4.0, 5.0], array_slice(Section::fromArray(['box' => [1, 5, 3, 4, 2, 9]])->box?->toList() ?? [], 3, 2));
        foreach (
            [
                [],
                ['box' => [1, 2]],
                ['box' => 'x', 'planes' => [[[0, 0, 0], 1], 3, [[1, 2], 3], [[1, 0, 0]]]],
                ['box' => [1, 2, 3, 4, 5, INF]],
            ] as $odd
        ) {
            self::assertTrue(Section::fromArray($odd + ['on' => true])->isEmpty());
        }
    }

    /** @return array{float, float, float, float, float, float, float, float, float, float, float, float} mirrored as often as not */
    private static function placement(): array
    {
        $turn = array_map(static fn (): float => mt_rand(-100, 100) / 100, range(0, 3));
        $sign = mt_rand(0, 1) === 0 ? -1 : 1;
        $move = array_map(static fn (): float => mt_rand(-500, 500) / 100, range(0, 2));

        return Affine::compose($move, $turn, [mt_rand(50, 200) / 100, 1.0, ($sign * mt_rand(50, 200)) / 100]);
    }

    /**
     * The plane through a place of the mesh along its first two axes.
     *
     * @param array{float, float, float, float, float, float, float, float, float, float, float, float} $m
     * @param array{float, float, float}                                                             $at
     */
    private static function across(array $m, array $at): Plane
    {
        $normal = self::cross([$m[0], $m[4], $m[8]], [$m[1], $m[5], $m[9]]);
        if ($normal[0] * $m[2] + $normal[1] * $m[6] + $normal[2] * $m[10] < 0) {
            $normal = [-$normal[0], -$normal[1], -$normal[2]];
        }
        $length = self::length($normal);
        $place = self::placed($m, $at);

        return Plane::of($normal, ($normal[0] * $place[0] + $normal[1] * $place[1] + $normal[2] * $place[2]) / $length);
    }

    private static function ball(int $rings, int $around): Shape
    {
        $places = $indices = [];
        for ($ring = 0; $ring <= $rings; $ring++) {
            for ($at = 0; $at < $around; $at++) {
                [$polar, $turn] = [(M_PI * $ring) / $rings, (2 * M_PI * $at) / $around];
                foreach ([sin($polar) * cos($turn), sin($polar) * sin($turn), cos($polar)] as $side) {
                    $places[] = (int) round(32767 * $side);
                }
                $places[] = 0;
                if ($ring < $rings) {
                    [$a, $b] = [$ring * $around + $at, $ring * $around + (($at + 1) % $around)];
                    array_push($indices, $a, $a + $around, $b, $b, $a + $around, $b + $around);
                }
            }
        }

        return new Shape(
            [1.0, 1.0, 1.0],
            [
                [
                    'kind' => PrimitiveKind::Triangles,
                    'positions' => pack('s*', ...$places),
                    'indices' => pack('v*', ...$indices),
                    'wide' => false,
                ],
            ],
        );
    }

    /** The same with corners of its own for each triangle, triangles turned round at random, some twice, and some that are lines. */
    private static function soup(Shape $shape): Shape
    {
        /** @var array<int, int> $n */
        $n = unpack('s*', $shape->pieces[0]['positions']);
        /** @var list<int> $corners */
        $corners = array_values((array) unpack('v*', $shape->pieces[0]['indices']));
        $triangles = array_chunk($corners, 3);
        foreach ($triangles as [$a, $b, $c]) {
            if (mt_rand(0, 9) === 0) {
                $triangles[] = [$a, $b, $c];
                $triangles[] = [$a, $b, $b];
            }
        }
        $places = '';
        foreach ($triangles as $triangle) {
            foreach (mt_rand(0, 1) === 0 ? $triangle : array_reverse($triangle) as $corner) {
                $places .= pack('s4', $n[4 * $corner + 1], $n[4 * $corner + 2], $n[4 * $corner + 3], 0);
            }
        }

        return new Shape($shape->scale, [
            ['positions' => $places, 'indices' => pack('v*', ...range(0, intdiv(strlen($places), 8) - 1))] + $shape->pieces[0],
        ]);
    }

    /**
     * Six times the volume below the triangles and faces, seen from zero, over six.
     *
     * @param array{float, float, float, float, float, float, float, float, float, float, float, float} $placement
     * @param list<list<float>>                                                                      $faces
     */
    private static function volume(Shape $shape, array $placement, array $faces, int $sign = 1): float
    {
        $six = 0.0;
        foreach (self::triangles($shape, $placement) as [$a, $b, $c]) {
            $cross = self::cross($b, $c);
            $six += $a[0] * $cross[0] + $a[1] * $cross[1] + $a[2] * $cross[2];
        }
        foreach ($faces as $face) {
            for ($at = 3; $at + 5 < count($face); $at += 3) {
                $cross = self::cross([$face[$at], $face[$at + 1], $face[$at + 2]], [$face[$at + 3], $face[$at + 4], $face[$at + 5]]);
                $six += $sign * ($face[0] * $cross[0] + $face[1] * $cross[1] + $face[2] * $cross[2]);
            }
        }

        return $six / 6;
    }

    /**
     * @param array{float, float, float, float, float, float, float, float, float, float, float, float} $m
     *
     * @return iterable<array{array{float, float, float}, array{float, float, float}, array{float, float, float}}>
     */
    private static function triangles(Shape $shape, array $m): iterable
    {
        foreach ($shape->pieces as $piece) {
            /** @var array<int, int> $n */
            $n = unpack('s*', $piece['positions']);
            /** @var list<int> $corners */
            $corners = array_values((array) unpack($piece['wide'] ? 'V*' : 'v*', $piece['indices']));
            $place = static fn (int $corner): array => self::placed($m, [
                ($shape->scale[0] * $n[4 * $corner + 1]) / 32767,
                ($shape->scale[1] * $n[4 * $corner + 2]) / 32767,
                ($shape->scale[2] * $n[4 * $corner + 3]) / 32767,
            ]);
            foreach (array_chunk($corners, 3) as [$a, $b, $c]) {
                yield [$place($a), $place($b), $place($c)];
            }
        }
    }

    /**
     * @param array{float, float, float, float, float, float, float, float, float, float, float, float} $m
     * @param array{float, float, float}                                                             $p
     *
     * @return array{float, float, float}
     */
    private static function placed(array $m, array $p): array
    {
        return [
            $m[0] * $p[0] + $m[1] * $p[1] + $m[2] * $p[2] + $m[3],
            $m[4] * $p[0] + $m[5] * $p[1] + $m[6] * $p[2] + $m[7],
            $m[8] * $p[0] + $m[9] * $p[1] + $m[10] * $p[2] + $m[11],
        ];
    }

    /** @param array<float> $a @param array<float> $b @return array{float, float, float} */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }

    /** @param array<float> $a @param array<float> $b @return array{float, float, float} */
    private static function minus(array $a, array $b): array
    {
        return [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    }

    /** @param array<float> $a @param array<float> $b @return array{float, float, float} */
    private static function plus(array $a, array $b): array
    {
        return [$a[0] + $b[0], $a[1] + $b[1], $a[2] + $b[2]];
    }

    /** @param array<float> $a */
    private static function length(array $a): float
    {
        return sqrt($a[0] ** 2 + $a[1] ** 2 + $a[2] ** 2);
    }
}
