<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\ShapedModel;
use VineShelf\Geometry\Shape;
use VineShelf\Picking\Ray;
use VineShelf\Picking\Sight;
use VineShelf\Rungs\InEffect;

final class RayTest extends TestCase
{
    public function test_a_ray_meets_the_nearest_triangle(): void
    {
        mt_srand(14);
        $met = 0;
        for ($round = 0; $round < 120; $round++) {
            $model = ShapedModel::grow(mt_rand(3, 20));
            $scene = $model->facts->scene;
            $from = [mt_rand(-150, 150) / 10, mt_rand(-150, 150) / 10, mt_rand(-60, 60) / 10];
            $placed = array_merge(...array_values($model->placements)) ?: [array_fill(0, 12, 0.5)];
            $aim = $placed[array_rand($placed)];
            $way = [$aim[3] - $from[0], $aim[7] - $from[1], $aim[11] - $from[2] + 0.01];
            $inEffect = new InEffect($scene, $model->forest->organizers, $model->forest->settings);
            $found = (new Ray($from, $way))->meet($model->facts, $inEffect, $model);
            $expected = null;
            foreach ($model->placements as $number => $placements) {
                $rung = $model->forest->slowRung($number);
                foreach ($rung === 0 ? [] : $placements as $m) {
                    // What is drawn as its box is met where its box is.
                    $shape = $rung === 1 ? $model->boxOf($number) : $model->shape($model->meshes[$number]);
                    foreach (self::triangles($shape, $model->aroundMiddle($number, $m)) as $triangle) {
                        $distance = self::slowHit($from, $way, $triangle);
                        if ($distance !== null && ($expected === null || $distance < $expected[1])) {
                            $expected = [$number, $distance];
                        }
                    }
                }
            }
            self::assertSame($expected[0] ?? null, $found === null ? null : $scene->number($found['row']), "round $round");
            if ($found !== null) {
                self::assertEqualsWithDelta($expected[1] ?? 0, $found['distance'], 1e-4);
                $met++;
            }
        }
        self::assertGreaterThan(20, $met);
    }

    public function test_a_sight_is_clear_and_the_wanted_one_is_kept_where_it_is(): void
    {
        mt_srand(15);
        $kept = $moved = 0;
        for ($round = 0; $round < 350; $round++) {
            $model = ShapedModel::grow(mt_rand(20, 70));
            $scene = $model->facts->scene;
            $inEffect = new InEffect($scene, $model->forest->organizers, $model->forest->settings);
            $number = array_rand($model->forest->parents);
            $row = $scene->row($number);
            $box = $model->facts->box($row);
            if ($box === null) {
                continue;
            }
            $middle = [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2, ($box[2] + $box[5]) / 2];
            $wanted = [
                $middle[0] + mt_rand(-180, 180) / 10 + 0.05,
                $middle[1] + mt_rand(-180, 180) / 10,
                $middle[2] + mt_rand(-20, 60) / 10,
            ];
            $radius = 0.3;
            $far = self::length($wanted, $middle);
            $found = (new Sight($model->facts, $inEffect, $model))->from($row, $wanted, $middle, $radius);
            if (self::isClear($model, $number, $wanted, $middle, $radius)) {
                self::assertSame($wanted, $found, "round $round");
                $kept++;
            } elseif ($found !== null) {
                self::assertTrue(self::isClear($model, $number, $found, $middle, $radius), "round $round");
                self::assertEqualsWithDelta($far, self::length($found, $middle), 1e-6, 'as far away');
                $moved++;
            }
        }
        self::assertGreaterThan(10, $kept);
        self::assertGreaterThan(10, $moved);
    }

    public function test_from_the_middle_itself_there_is_no_direction(): void
    {
        mt_srand(16);
        $model = ShapedModel::grow(4);
        $inEffect = new InEffect($model->facts->scene, $model->forest->organizers, $model->forest->settings);
        self::assertNull((new Sight($model->facts, $inEffect, $model))->from(1, [1.0, 2.0, 3.0], [1.0, 2.0, 3.0], 1.0));
    }

    /**
     * @param list<float> $eye
     * @param list<float> $middle
     */
    private static function isClear(ShapedModel $model, int $number, array $eye, array $middle, float $radius): bool
    {
        $way = [$middle[0] - $eye[0], $middle[1] - $eye[1], $middle[2] - $eye[2]];
        $nearest = null;
        foreach ($model->placements as $other => $placements) {
            // A ghost or what is hidden stands in nobody's way.
            foreach (in_array($model->forest->slowRung($other), [0, 2], true) ? [] : $placements as $m) {
                $shape = $model->forest->slowRung($other) === 1 ? $model->boxOf($other) : $model->shape($model->meshes[$other]);
                foreach (self::triangles($shape, $model->aroundMiddle($other, $m)) as $triangle) {
                    $distance = self::slowHit($eye, $way, $triangle);
                    if ($distance !== null && ($nearest === null || $distance < $nearest[1])) {
                        $nearest = [$other, $distance];
                    }
                }
            }
        }
        for ($at = $nearest[0] ?? $number; $at !== $number; $at = $model->forest->parents[$at]) {
            if ($at === 0) {
                return ($nearest[1] ?? 0) >= 1 - $radius / self::length($eye, $middle);
            }
        }

        return true;
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     */
    private static function length(array $a, array $b): float
    {
        return sqrt(($a[0] - $b[0]) ** 2 + ($a[1] - $b[1]) ** 2 + ($a[2] - $b[2]) ** 2);
    }

    /**
     * @param list<float> $m
     *
     * @return list<list<list<float>>>
     */
    private static function triangles(?Shape $shape, array $m): array
    {
        $triangles = [];
        foreach ($shape->pieces ?? [] as $piece) {
            if ($piece['kind']->value !== 4) {
                continue;
            }
            $places = array_values((array) unpack('s*', $piece['positions']));
            foreach (array_chunk(array_values((array) unpack('v*', $piece['indices'])), 3) as $corners) {
                $triangles[] = array_map(static function (int $corner) use ($places, $shape, $m): array {
                    $p = array_map(
                        static fn (int $axis): float => ($places[$corner * 4 + $axis] * $shape->scale[$axis]) / 32767,
                        [0, 1, 2],
                    );

                    return array_map(
                        static fn (int $row): float => $m[$row] * $p[0] + $m[$row + 1] * $p[1] + $m[$row + 2] * $p[2] + $m[$row + 3],
                        [0, 4, 8],
                    );
                }, $corners);
            }
        }

        return $triangles;
    }

    /**
     * By the plane of the triangle, and the sides of it on which the place lies.
     *
     * @param list<float>       $o
     * @param list<float>       $d
     * @param list<list<float>> $t
     */
    private static function slowHit(array $o, array $d, array $t): ?float
    {
        $minus = static fn (array $a, array $b): array => [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
        $cross = static fn (array $a, array $b): array => [
            $a[1] * $b[2] - $a[2] * $b[1],
            $a[2] * $b[0] - $a[0] * $b[2],
            $a[0] * $b[1] - $a[1] * $b[0],
        ];
        $dot = static fn (array $a, array $b): float => $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
        $normal = $cross($minus($t[1], $t[0]), $minus($t[2], $t[0]));
        if (abs($dot($normal, $d)) < 1e-12) {
            return null;
        }
        $distance = $dot($normal, $minus($t[0], $o)) / $dot($normal, $d);
        $place = [$o[0] + $distance * $d[0], $o[1] + $distance * $d[1], $o[2] + $distance * $d[2]];
        foreach ([0, 1, 2] as $side) {
            if ($dot($normal, $cross($minus($t[($side + 1) % 3], $t[$side]), $minus($place, $t[$side]))) < 0) {
                return null;
            }
        }

        return $distance > 1e-9 ? $distance : null;
    }
}
