<?php

declare(strict_types=1);

namespace Tests\Core;

use MarlpitBaths\Dice;
use MarlpitBaths\MarlpitBaths;
use MarlpitBaths\Shape;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use VineShelf\Formats\Files;
use VineShelf\Formats\Gltf\Pictures;
use VineShelf\Scene\Kind;

/** The generator of Marlpit Baths: sound shapes, and the mistakes that an outside file has. */
final class DemoTest extends TestCase
{
    public function test_shapes_are_closed_where_they_should_be_and_face_outwards(): void
    {
        $shapes = [
            'box' => [(new Shape)->box(1, 2, 3, 2, 4, 6), 48.0],
            'cylinder' => [(new Shape)->cylinder(0, 0, 0, 1, 2, 64), 2 * M_PI],
            'ball' => [(new Shape)->ball(5, 0, 0, 1, 64), (4 / 3) * M_PI],
            'tube' => [(new Shape)->tube([[0.0, 0.0, 0.0], [4.0, 0.0, 0.0]], 0.5, 64), M_PI],
            'sweep' => [
                (new Shape)->sweep([[0.0, 0.0, 0.0], [0.0, 3.0, 0.0]], [[-0.5, -1.0], [0.5, -1.0], [0.5, 1.0], [-0.5, 1.0]], false),
                6.0,
            ],
        ];
        foreach ($shapes as $name => [$shape, $volume]) {
            // The sum of signed tetrahedra is the volume only when every triangle faces outwards and none is missing.
            self::assertEqualsWithDelta($volume, self::volume($shape), $volume * 0.01, $name);
            foreach (array_chunk($shape->normals, 3) as [$x, $y, $z]) {
                self::assertEqualsWithDelta(1.0, sqrt($x * $x + $y * $y + $z * $z), 1e-6, $name);
            }
            self::assertSame(count($shape->positions), count($shape->normals));
            self::assertSame(intdiv(count($shape->positions), 3), intdiv(count($shape->uvs), 2));
            self::assertLessThan(intdiv(count($shape->positions), 3), max($shape->indices));
        }
    }

    public function test_normals_agree_with_the_triangles(): void
    {
        foreach (
            [
                (new Shape)->box(0, 0, 0, 1, 2, 3),
                (new Shape)->ball(0, 0, 0, 2, 16),
                (new Shape)->lathe([[0, 0], [1, 0], [0.5, 2], [0, 2]], 20),
                (new Shape)->tube([[0.0, 0.0, 0.0], [0.0, 0.0, 2.0], [1.0, 0.0, 3.0]], 0.2, 12),
            ] as $shape
        ) {
            foreach (array_chunk($shape->indices, 3) as [$a, $b, $c]) {
                $p = static fn (int $index): array => array_slice($shape->positions, $index * 3, 3);
                [$u, $v] = [self::minus($p($b), $p($a)), self::minus($p($c), $p($a))];
                $face = [$u[1] * $v[2] - $u[2] * $v[1], $u[2] * $v[0] - $u[0] * $v[2], $u[0] * $v[1] - $u[1] * $v[0]];
                $normal = array_slice($shape->normals, $a * 3, 3);
                self::assertGreaterThan(-1e-9, $face[0] * $normal[0] + $face[1] * $normal[1] + $face[2] * $normal[2]);
            }
        }
    }

    public function test_a_shape_can_be_moved_and_turned_into_another(): void
    {
        $both = (new Shape)->box(0, 0, 0, 1, 1, 1)->add((new Shape)->box(1, 0, 0, 1, 1, 1), 0, 0, 5, M_PI / 2);
        $second = array_slice($both->positions, 72);
        self::assertEqualsWithDelta([-0.5, 0.5], [min(self::axis($second, 0)), max(self::axis($second, 0))], 1e-9);
        self::assertEqualsWithDelta([0.5, 1.5], [min(self::axis($second, 1)), max(self::axis($second, 1))], 1e-9);
        self::assertEqualsWithDelta(2.0, self::volume($both), 1e-9);
    }

    public function test_the_dice_fall_the_same_everywhere(): void
    {
        $dice = new Dice(7919);
        $fallen = array_map(static fn (): float => round($dice->between(0, 100), 3), range(1, 4));
        self::assertSame(
            $fallen,
            array_map(static fn (Dice $again): float => round($again->between(0, 100), 3), array_fill(0, 4, new Dice(7919))),
        );
        self::assertGreaterThanOrEqual(0, min($fallen));
        self::assertLessThanOrEqual(100, max($fallen));
    }

    public function test_the_baths_hold_what_a_modeler_would_look_for_and_the_planted_mistakes(): void
    {
        MarlpitBaths::write($path = Gltf::keep(''), 'demo');
        $intake = Files::open($path);
        $objects = $intake->objects();
        $names = array_count_values($objects->names);
        foreach (['Site', 'Building', 'Stand South', 'Lane rope 3', 'Door_D04', 'P-07', 'F-10', 'Gallery', 'Cafe', 'Cameras'] as $name) {
            self::assertSame(1, $names[$name] ?? 0, $name);
        }
        self::assertGreaterThan(240, $names['Float'] ?? 0, 'lane ropes are made of repeats');
        self::assertGreaterThanOrEqual(4, ($names[''] ?? 1) - 1, 'some objects have no name');
        self::assertSame(3, count(array_keys($objects->kinds, Kind::Marker->value, true)), 'three groups are empty');
        $layers = [];
        foreach ($objects->properties as $row => $json) {
            $layers[$row] = json_decode($json, true)['layer'] ?? null;
        }
        $clips = array_keys($objects->names, 'Clip', true);
        $astray = array_filter($clips, static fn (int $row): bool => $layers[$row] === '61 Lockers');
        self::assertNotSame([], $astray, 'some pipe clips are filed with the lockers');
        self::assertCount(3, $intake->textures());
        foreach (array_keys($intake->textures()) as $texture) {
            self::assertSame('image/png', Pictures::type((string) $intake->picture($texture)));
        }
        self::assertSame(8, count(array_keys($objects->kinds, Kind::Light->value, true)));
        self::assertSame(4, count(array_keys($objects->kinds, Kind::Camera->value, true)));
    }

    public function test_an_unknown_size_is_refused(): void
    {
        $this->expectExceptionMessage('There is no size "vast"; the sizes are small, demo, medium, large, huge, scattered.');
        MarlpitBaths::write(Gltf::keep(''), 'vast');
    }

    private static function volume(Shape $shape): float
    {
        $volume = 0.0;
        foreach (array_chunk($shape->indices, 3) as [$a, $b, $c]) {
            [$p, $q, $r] = array_map(static fn (int $index): array => array_slice($shape->positions, $index * 3, 3), [$a, $b, $c]);
            $volume +=
                ($p[0] * ($q[1] * $r[2] - $q[2] * $r[1]) -
                    $p[1] * ($q[0] * $r[2] - $q[2] * $r[0]) +
                    $p[2] * ($q[0] * $r[1] - $q[1] * $r[0])) /
                6;
        }

        return $volume;
    }

    /**
     * @param array<int, float> $a
     * @param array<int, float> $b
     *
     * @return array{float, float, float}
     */
    private static function minus(array $a, array $b): array
    {
        return [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    }

    /**
     * @param list<float> $positions
     *
     * @return non-empty-list<float>
     */
    private static function axis(array $positions, int $axis): array
    {
        $values = [];
        for ($at = $axis; $at < count($positions); $at += 3) {
            $values[] = $positions[$at];
        }

        return $values === [] ? [0.0] : $values;
    }
}
