<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\ShapedModel;
use VineShelf\Geometry\Shape;
use VineShelf\Lighten\Drawing;
use VineShelf\Lighten\VersionedShapes;
use VineShelf\Picking\Camera;
use VineShelf\Picking\Ray;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;

final class SeenTest extends TestCase
{
    private const WIDTH = 40;

    private const HEIGHT = 30;

    public function test_what_is_in_front_in_the_small_picture_is_what_a_ray_meets(): void
    {
        mt_srand(30);
        $met = $nothing = $boxes = 0;
        for ($round = 0; $round < 48; $round++) {
            $model = ShapedModel::grow(mt_rand(3, 16));
            $scene = $model->facts->scene;
            $inEffect = new InEffect($scene, $model->forest->organizers, $model->forest->settings);
            // From outside and from within, where things reach behind the eye.
            $far = $round % 3 === 0 ? 4.0 : 13.0;
            $eye = [mt_rand(-10, 10) / 10 * $far, -$far + 0.013, mt_rand(-5, 5) / 10 * $far];
            $target = [mt_rand(-10, 10) / 10 + 0.017, mt_rand(-10, 10) / 10, 0.5];
            $up = [0.0, 0.0, 1.0];
            $camera =
                $round % 2 === 0
                    ? Camera::perspective($eye, $target, $up, 50.0, self::WIDTH, self::HEIGHT, 0.05)
                    : Camera::parallel($eye, $target, $up, 14.0, self::WIDTH, self::HEIGHT);
            $seen = (new Drawing($model->facts, $camera, self::WIDTH, self::HEIGHT, self::shapes($model)))->of($inEffect->rungs());
            $counts = [];
            for ($pixel = 0; $pixel < self::WIDTH * self::HEIGHT; $pixel += 3) {
                $drawn = $seen->raster->rows[$pixel] ?? -1;
                $x = $pixel % self::WIDTH + 0.5;
                $y = intdiv($pixel, self::WIDTH) + 0.5;
                $found = [];
                // On an edge either is right.
                foreach ([[0.0, 0.0], [0.01, 0.0], [-0.01, 0.0], [0.0, 0.01], [0.0, -0.01]] as [$dx, $dy]) {
                    [$from, $way] = self::ray($camera, $eye, $x + $dx, $y + $dy);
                    $found[] = (new Ray($from, $way))->meet($model->facts, $inEffect, $model, [Rung::Hidden, Rung::Ghost])['row'] ?? 0;
                    if ($found[0] === $drawn) {
                        break;
                    }
                }
                self::assertContains($drawn, $found, "round $round, pixel $pixel");
                $drawn === 0 ? $nothing++ : $met++;
                $boxes += $drawn > 0 && $inEffect->rungs()->at($drawn) === Rung::Box->value ? 1 : 0;
            }
            foreach ($seen->raster?->counts() ?? [] as $row => $pixels) {
                self::assertTrue($row === 0 || $seen->seen[$row] >= $pixels && $seen->covered[$row] >= $pixels, "round $round, row $row");
            }
        }
        self::assertGreaterThan(1000, $met);
        self::assertGreaterThan(1000, $nothing);
        self::assertGreaterThan(100, $boxes);
    }

    /**
     * The eye and the way through a place of the picture, found by asking the camera where three points are.
     *
     * @param array{float, float, float} $eye
     *
     * @return array{array{float, float, float}, array{float, float, float}}
     */
    private static function ray(Camera $camera, array $eye, float $x, float $y): array
    {
        // X - x W = 0 and Y - y W = 0 are two planes; what lies in both is the ray.
        $m = $camera->rows;
        $one = [$m[0] - $x * $m[8], $m[1] - $x * $m[9], $m[2] - $x * $m[10], $m[3] - $x * $m[11]];
        $two = [$m[4] - $y * $m[8], $m[5] - $y * $m[9], $m[6] - $y * $m[10], $m[7] - $y * $m[11]];
        $way = [$one[1] * $two[2] - $one[2] * $two[1], $one[2] * $two[0] - $one[0] * $two[2], $one[0] * $two[1] - $one[1] * $two[0]];
        $h = $camera->ahead;
        $ahead = $way[0] * $h[0] + $way[1] * $h[1] + $way[2] * $h[2];
        $way = array_map(static fn (float $part): float => $part / $ahead, $way);
        if (! $camera->isParallel) {
            return [$eye, [$way[0], $way[1], $way[2]]];
        }
        // Some point of both planes: within the plane through the eye that the way stands upright on.
        $from = self::solved([$one, $two, [$h[0], $h[1], $h[2], $h[3] + 500.0]]);

        return [$from, [$way[0], $way[1], $way[2]]];
    }

    /**
     * @param list<array{float, float, float, float}> $planes a x + b y + c z + d = 0
     *
     * @return array{float, float, float}
     */
    private static function solved(array $planes): array
    {
        $det = static fn (array $p, array $q, array $r): float => $p[0] * ($q[1] * $r[2] - $q[2] * $r[1]) -
            $p[1] * ($q[0] * $r[2] - $q[2] * $r[0]) +
            $p[2] * ($q[0] * $r[1] - $q[1] * $r[0]);
        $whole = $det(...$planes);
        $at = [];
        foreach ([0, 1, 2] as $axis) {
            $with = array_map(static function (array $plane) use ($axis): array {
                $plane[$axis] = -$plane[3];

                return $plane;
            }, $planes);
            $at[] = $det(...$with) / $whole;
        }

        return [$at[0], $at[1], $at[2]];
    }

    private static function shapes(ShapedModel $model): VersionedShapes
    {
        return new class ($model) implements VersionedShapes {
            public function __construct(private readonly ShapedModel $model) {}

            public function within(int $mesh, float $error): ?Shape
            {
                return $this->model->shape($mesh);
            }

            public function coarse(int $mesh): ?Shape
            {
                return $this->model->shape($mesh);
            }
        };
    }
}
