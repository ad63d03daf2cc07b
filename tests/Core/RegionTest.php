<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\ShapedModel;
use Tests\Core\Support\SlowRegion;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;
use VineShelf\Picking\Camera;
use VineShelf\Picking\Projection;
use VineShelf\Picking\Region;
use VineShelf\Picking\RegionPick;
use VineShelf\Picking\Stroke;
use VineShelf\Rungs\InEffect;
use VineShelf\Section\Plane;
use VineShelf\Section\Section;

final class RegionTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 16) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_catches_what_looking_at_every_triangle_catches(int $seed): void
    {
        mt_srand($seed);
        $caught = 0;
        for ($round = 0; $round < 4; $round++) {
            $model = ShapedModel::grow(mt_rand(5, 25));
            for ($try = 0; $try < 5; $try++) {
                $camera = self::camera();
                [$region, $slow] = self::region();
                foreach ([true, false] as $inside) {
                    $found = self::found($model, $camera, $region, $inside);
                    $expected = $slow->find($model, $camera, $inside);
                    self::assertSame(
                        $expected,
                        $found,
                        ($inside ? 'inside' : 'touching')." {$slow->kind}, seed $seed, round $round, try $try",
                    );
                    $caught += count($found);
                }
            }
        }
        self::assertGreaterThan(0, $caught);
    }

    public function test_what_a_section_cuts_away_is_not_caught(): void
    {
        mt_srand(500);
        $differs = 0;
        for ($round = 0; $round < 30; $round++) {
            $model = ShapedModel::grow(mt_rand(5, 25));
            $some = static fn (): float => mt_rand(-700, 700) / 100 + 0.0173;
            [$x, $y, $z] = [$some(), $some(), $some()];
            $section = Section::of(
                mt_rand(0, 2) === 0 ? null : new Box($x - 3, $y - 4, $z - 3, $x + 4, $y + 3, $z + 2),
                mt_rand(0, 1) === 0 ? [] : [Plane::of([$some(), $some(), $some()], $some())],
            );
            for ($try = 0; $try < 3; $try++) {
                $camera = self::camera();
                [$region, $slow] = self::region();
                foreach ([true, false] as $inside) {
                    $found = self::found($model, $camera, $region, $inside, $section);
                    self::assertSame(
                        $slow->find($model, $camera, $inside, $section->planes()),
                        $found,
                        "{$slow->kind}, round $round, try $try",
                    );
                    $differs += $found === self::found($model, $camera, $region, $inside) ? 0 : 1;
                }
            }
        }
        self::assertGreaterThan(10, $differs);
    }

    public function test_a_place_in_the_picture_is_where_the_camera_sees_it(): void
    {
        // Seen from 10 m south of the middle with 90 degrees, a point 10 m to the east of the middle stands at the right edge.
        $camera = Camera::perspective([0, -10, 0], [0, 0, 0], [0, 0, 1], 90, 800, 800, 0.1);
        $at = static function (Camera $camera, float $x, float $y, float $z): array {
            $m = $camera->rows;
            $w = $m[8] * $x + $m[9] * $y + $m[10] * $z + $m[11];

            return array_map(
                static fn (int $row): float => round(($m[$row] * $x + $m[$row + 1] * $y + $m[$row + 2] * $z + $m[$row + 3]) / $w, 6),
                [0, 4],
            );
        };
        self::assertSame([800.0, 400.0], $at($camera, 10, 0, 0));
        self::assertSame([400.0, 0.0], $at($camera, 0, 0, 10));
        self::assertSame([400.0, 400.0], $at($camera, 0, 500, 0));
        // In parallel, 20 m high: 10 m up is the upper edge, however far away.
        $parallel = Camera::parallel([0, -10, 0], [0, 0, 0], [0, 0, 1], 20, 1000, 800);
        self::assertSame(
            [[500.0, 0.0], [500.0, 0.0], [540.0, 400.0]],
            [$at($parallel, 0, 0, 10), $at($parallel, 0, 900, 10), $at($parallel, 1, 0, 0)],
        );
        // Looking straight down, where "up" says nothing, north is up.
        $plan = Camera::parallel([0, 0, 50], [0, 0, 0], [0, 0, 1], 20, 800, 800);
        self::assertSame([[400.0, 0.0], [800.0, 400.0]], [$at($plan, 0, 10, 0), $at($plan, 10, 0, 0)]);
    }

    public function test_what_is_hidden_guarded_or_behind_the_camera_is_not_caught(): void
    {
        mt_srand(5);
        $everything = Region::rectangle(-1e5, -1e5, 1e5, 1e5);
        $seen = 0;
        for ($round = 0; $round < 40; $round++) {
            $model = ShapedModel::grow(20);
            $camera = Camera::perspective([0, -80, 0], [0, 0, 0], [0, 0, 1], 60, 800, 600, 0.1);
            $found = self::found($model, $camera, $everything, false);
            $expected = [];
            foreach ($model->forest->parents as $number => $_) {
                if ($model->meshes[$number] > 0 && $model->forest->slowRung($number) > 0 && $model->forest->slowLock($number) === 0) {
                    $expected[] = $number;
                }
            }
            sort($expected);
            self::assertSame($expected, $found);
            self::assertSame(
                [],
                self::found($model, Camera::perspective([0, -80, 0], [0, -90, 0], [0, 0, 1], 60, 800, 600, 0.1), $everything, false),
                'everything is behind this camera',
            );
            $seen += count($found);
        }
        self::assertGreaterThan(100, $seen);
    }

    public function test_cells_agree_with_the_outlines(): void
    {
        mt_srand(6);
        for ($round = 0; $round < 60; $round++) {
            [$region, $slow] = self::region();
            for ($try = 0; $try < 60; $try++) {
                $x = mt_rand(-100, 900) + 0.37;
                $y = mt_rand(-100, 700) + 0.41;
                self::assertSame($slow->has($x, $y), $region->has($x, $y), "$slow->kind, round $round");
                $is = $region->rectangleIs($x, $y, $x + 20, $y + 14);
                if ($is !== Region::MIXED) {
                    foreach ([[1, 1], [19, 1], [10, 7], [1, 13], [19, 13]] as [$dx, $dy]) {
                        self::assertSame($is === Region::IN, $slow->has($x + $dx, $y + $dy));
                    }
                }
            }
        }
    }

    public function test_where_a_region_can_be_in_a_rectangle_holds_all_of_it_that_is_there(): void
    {
        mt_srand(9);
        $narrowed = $empty = 0;
        for ($round = 0; $round < 60; $round++) {
            [$region] = self::region();
            for ($try = 0; $try < 10; $try++) {
                [$left, $top] = [mt_rand(-50, 800), mt_rand(-50, 600)];
                [$right, $bottom] = [$left + mt_rand(1, 300), $top + mt_rand(1, 300)];
                $within = $region->within($left, $top, $right, $bottom);
                $empty += $within === null ? 1 : 0;
                $narrowed += $within !== null && ($within[0] > $left + 4 || $within[2] < $right - 4) ? 1 : 0;
                for ($point = 0; $point < 60; $point++) {
                    [$x, $y] = [mt_rand($left * 10, $right * 10) / 10, mt_rand($top * 10, $bottom * 10) / 10];
                    if ($region->has($x, $y)) {
                        self::assertNotNull($within);
                        self::assertTrue($x >= $within[0] && $x <= $within[2] && $y >= $within[1] && $y <= $within[3], "$x, $y");
                    }
                }
            }
        }
        self::assertGreaterThan(20, min($narrowed, $empty));
    }

    public function test_a_rectangle_is_mixed_exactly_where_the_edge_passes_through_it(): void
    {
        $square = Region::rectangle(100, 100, 200, 200);
        // A tenth of a pixel beside the edge is within a mixed cell.
        self::assertSame(Region::MIXED, $square->rectangleIs(200.1, 120, 200.4, 121));
        self::assertSame(Region::OUT, $square->rectangleIsExactly(200.1, 120, 200.4, 121));
        self::assertSame(Region::IN, $square->rectangleIsExactly(199.1, 120, 199.9, 121));
        self::assertSame(Region::MIXED, $square->rectangleIsExactly(199.1, 120, 200.4, 121));
        self::assertSame(Region::MIXED, $square->rectangleIsExactly(50, 50, 300, 300), 'the region lies in it');
        mt_srand(8);
        $told = [Region::OUT => 0, Region::MIXED => 0, Region::IN => 0];
        for ($round = 0; $round < 240; $round++) {
            [$region, $slow] = self::region();
            [$x, $y] = [mt_rand(0, 800) + 0.37, mt_rand(0, 600) + 0.41];
            [$wide, $tall] = [mt_rand(1, 90), mt_rand(1, 90)];
            $is = $region->rectangleIsExactly($x, $y, $x + $wide, $y + $tall);
            $told[$is]++;
            $rectangle = [[$x, $y], [$x + $wide, $y], [$x + $wide, $y + $tall], [$x, $y + $tall]];
            if ($is !== Region::MIXED) {
                self::assertSame(
                    [$is === Region::IN, $is === Region::IN],
                    [$slow->touches($rectangle), $slow->covers($rectangle)],
                    "$slow->kind, round $round",
                );
            } elseif ($slow->kind !== 'brush') {
                self::assertSame([true, false], [$slow->touches($rectangle), $slow->covers($rectangle)], "$slow->kind, round $round");
            }
        }
        self::assertGreaterThan(12, min($told));
    }

    public function test_a_rectangle_of_a_few_pixels_on_the_edge_is_told_as_exactly(): void
    {
        mt_srand(21);
        $told = [Region::OUT => 0, Region::MIXED => 0, Region::IN => 0];
        for ($round = 0; $round < 60; $round++) {
            [$region, $slow] = self::region();
            for ($try = 0; $try < 400; $try++) {
                [$x, $y] = [mt_rand(0, 8000) / 10 + 0.037, mt_rand(0, 6000) / 10 + 0.041];
                [$wide, $tall] = [mt_rand(1, 60) / 10, mt_rand(1, 60) / 10];
                if ($region->rectangleIs($x, $y, $x + $wide, $y + $tall) !== Region::MIXED) {
                    continue;
                }
                $is = $region->mixedIs($x, $y, $x + $wide, $y + $tall);
                $told[$is]++;
                $rectangle = [[$x, $y], [$x + $wide, $y], [$x + $wide, $y + $tall], [$x, $y + $tall]];
                $corners = [$slow->touches($rectangle), $slow->covers($rectangle)];
                if ($is !== Region::MIXED) {
                    self::assertSame([$is === Region::IN, $is === Region::IN], $corners, "$slow->kind, round $round");
                } elseif ($slow->kind !== 'brush') {
                    self::assertSame([true, false], $corners, "$slow->kind, round $round");
                }
            }
        }
        self::assertGreaterThan(40, min($told));
    }

    public function test_a_side_that_is_nearly_level_marks_only_the_cells_that_it_passes_through(): void
    {
        $region = Region::polygon([[0.0, 100.0], [600.0, 100.0 + 1e-7], [600.0, 200.0], [0.0, 200.0 - 1e-9]]);
        self::assertSame(Region::OUT, $region->rectangleIs(10, 90, 590, 99));
        self::assertSame(Region::IN, $region->rectangleIs(10, 105, 590, 195));
        self::assertSame(Region::MIXED, $region->rectangleIs(300, 99, 301, 101));
        self::assertSame(Region::OUT, $region->rectangleIs(610, 120, 640, 130));
    }

    /** @return iterable<string, array{string, bool, bool}> */
    public static function uses(): iterable
    {
        $few = [1, 1, 2];
        yield 'a number that stands askew between two others' => [pack('v*', ...$few), false, false];
        yield 'what is left over after the last triangle' => [pack('v*', ...$few, ...[256]), false, false];
        yield 'one of a triangle' => [pack('v*', 1, 256, 2), false, true];
        yield 'wide numbers' => [pack('V*', 1, 1, 2), true, false];
        yield 'one among wide numbers' => [pack('V*', 2, 1, 256), true, true];
        yield 'many' => [str_repeat(pack('v*', ...$few), 400), false, false];
        yield 'one among many' => [str_repeat(pack('v*', ...$few), 400).pack('v*', 1, 2, 256), false, true];
    }

    #[DataProvider('uses')]
    public function test_a_vertex_that_nothing_is_made_of_is_not_caught(string $indices, bool $wide, bool $caught): void
    {
        // Vertex 256 is in the middle of the picture, all others are high above it.
        $places = array_fill(0, 259 * 4, 0);
        foreach (array_diff(range(0, 258), [256]) as $vertex) {
            $places[$vertex * 4 + 2] = 32_767;
        }
        $piece = ['kind' => PrimitiveKind::Triangles, 'positions' => pack('s*', ...$places), 'indices' => $indices, 'wide' => $wide];
        $shape = new Shape([10.0, 10.0, 10.0], [$piece]);
        $camera = Camera::perspective([0.0, -20.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, 1.0], 40, 800, 600, 0.1);
        $projection = new Projection($camera, Region::circle(400, 300, 20));
        self::assertSame($caught, $projection->touches($shape, [1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0]));
        $above = new Projection($camera, Region::rectangle(300, -1000, 500, 200));
        self::assertSame(! $caught, $above->isInside($shape, [1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0]));
    }

    public function test_an_outline_that_turns_one_way_and_once_around_is_convex(): void
    {
        $tip = static fn (int $at): array => [400 + 100 * cos($at * 0.8 * M_PI), 300 + 100 * sin($at * 0.8 * M_PI)];
        $star = array_map($tip, range(0, 4));
        self::assertTrue(Region::rectangle(10, 10, 20, 30)->isConvex);
        self::assertTrue(Region::circle(10, 10, 30)->isConvex);
        self::assertTrue(Region::polygon([[0, 0], [0, 10], [5, 14], [10, 0]])->isConvex);
        self::assertFalse(Region::polygon([[0, 0], [10, 10], [10, 0], [0, 10]])->isConvex, 'a bow tie');
        self::assertFalse(Region::polygon([[0, 0], [10, 0], [5, 2], [5, 10]])->isConvex, 'a dart');
        self::assertFalse(Region::polygon($star)->isConvex, 'a star turns one way, but twice around');
        self::assertFalse(Region::brush([[0, 0], [50, 0], [50, 50]], 5)->isConvex);
    }

    private static function camera(): Camera
    {
        $some = static fn (int $far): float => mt_rand(-$far * 10, $far * 10) / 10 + 0.013;
        $eye = [$some(20), $some(20), $some(12)];
        $target = [$some(8), $some(8), $some(4)];

        return mt_rand(0, 3) === 0
            ? Camera::parallel($eye, $target, [0.0, 0.0, 1.0], mt_rand(50, 400) / 10, 800, 600)
            : Camera::perspective($eye, $target, [0.0, 0.0, 1.0], mt_rand(20, 110), 800, 600, 0.1);
    }

    /** @return array{Region, SlowRegion} */
    private static function region(): array
    {
        $x = static fn (): float => mt_rand(-50, 850) + 0.1234;
        $y = static fn (): float => mt_rand(-50, 650) + 0.4321;
        switch (mt_rand(0, 4)) {
            case 0:
                [$a, $b, $c, $d] = [$x(), $y(), $x(), $y()];

                return [
                    Region::rectangle($a, $b, $c, $d),
                    SlowRegion::polygon(
                        [[min($a, $c), min($b, $d)], [max($a, $c), min($b, $d)], [max($a, $c), max($b, $d)], [min($a, $c), max($b, $d)]],
                        'rectangle',
                    ),
                ];
            case 1:
                [$a, $b, $r] = [$x(), $y(), (float) mt_rand(10, 300)];

                return [Region::circle($a, $b, $r), SlowRegion::round([[$a, $b]], $r, 72)];
            case 2:
                $path = array_map(static fn (): array => [$x(), $y()], range(1, mt_rand(1, 5)));
                $radius = (float) mt_rand(10, 90);

                return [Region::brush($path, $radius), SlowRegion::round($path, $radius, 32)];
            default:
                $corners = array_map(static fn (): array => [$x(), $y()], range(1, mt_rand(3, 9)));

                return [Region::polygon($corners), SlowRegion::polygon($corners, 'polygon')];
        }
    }

    /** @return list<int> object numbers, ascending */
    private static function found(ShapedModel $model, Camera $camera, Region $region, bool $inside, ?Section $section = null): array
    {
        $scene = $model->facts->scene;
        $inEffect = new InEffect($scene, $model->forest->organizers, $model->forest->settings);
        $numbers = array_map(
            $scene->number(...),
            (new RegionPick($model->facts, $inEffect, $model, $camera, $region, $inside, false, $section))->find()->rows(),
        );
        sort($numbers);

        return $numbers;
    }

    public function test_a_thinned_stroke_is_never_off_by_more_than_a_picture_shows(): void
    {
        mt_srand(12);
        for ($round = 0; $round < 12; $round++) {
            $points = [[100.0, 100.0]];
            for ($step = mt_rand(1, 160); $step > 0; $step--) {
                [$x, $y] = $points[count($points) - 1];
                $points[] = [$x + mt_rand(-30, 40) / 10, $y + mt_rand(-20, 20) / 10];
            }
            $thin = Stroke::thinned($points, 100_000);
            self::assertSame([$points[0], $points[count($points) - 1]], [$thin[0], $thin[count($thin) - 1]]);
            foreach ($points as [$x, $y]) {
                $nearest = INF;
                foreach ($thin as $at => [$bx, $by]) {
                    [$ax, $ay] = $thin[max(0, $at - 1)];
                    for ($share = 0; $share <= 16; $share++) {
                        $nearest = min($nearest, hypot($ax + (($bx - $ax) * $share) / 16 - $x, $ay + (($by - $ay) * $share) / 16 - $y));
                    }
                }
                self::assertLessThan(Stroke::NEAR + 0.6, $nearest);
            }
        }
        $zigzag = array_map(static fn (int $at): array => [(float) $at, $at % 2 === 0 ? 0.0 : 900.0], range(0, 19_999));
        self::assertLessThanOrEqual(200, count(Stroke::thinned($zigzag, 200)));
        self::assertSame([[1.0, 2.0]], Stroke::thinned(array_fill(0, 5000, [1.0, 2.0]), 200));
    }
}
