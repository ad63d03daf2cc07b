<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\ForeignModel;
use Tests\Core\Support\Gltf;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Facts;
use VineShelf\Facts\Measure;
use VineShelf\Formats\Files;
use VineShelf\Formats\Inspection;
use VineShelf\Formats\Intake;
use VineShelf\Formats\StableKeys;
use VineShelf\Geometry\Hull;
use VineShelf\Geometry\Hulls;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\PackWriter;
use VineShelf\Geometry\Primitive;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;

/** Models that our own generator did not make and that are unlike it, against what they know of themselves. */
final class ForeignModelsTest extends TestCase
{
    #[TestWith(['glb'])]
    #[TestWith(['gltf'])]
    #[TestWith(['zip'])]
    public function test_counts_and_bounds_are_those_that_the_model_knows(string $how): void
    {
        mt_srand(crc32($how));
        for ($round = 0; $round < 40; $round++) {
            $model = ForeignModel::grow([1, 2, 7, 60, 250][$round % 5]);
            $found = Inspection::of(Files::open($model->write($how)));
            foreach ($model->counts as $what => $count) {
                self::assertSame($count, $found[$what], "$what, round $round");
            }
            $all = array_merge([], ...array_values($model->places));
            self::assertSame($all === [], $found['bounds'] === null);
            foreach ($all === [] ? [] : [0, 1, 2] as $axis) {
                $places = array_column($all, $axis);
                self::assertEqualsWithDelta(min($places), $found['bounds']['min'][$axis], 1e-4, "round $round");
                self::assertEqualsWithDelta(max($places), $found['bounds']['max'][$axis], 1e-4, "round $round");
            }
        }
    }

    public function test_every_object_stands_where_it_stands_and_is_as_large_as_it_is(): void
    {
        mt_srand(77);
        $seen = 0;
        for ($round = 0; $round < 30; $round++) {
            $model = ForeignModel::grow(mt_rand(1, 90));
            $intake = Files::open($model->write('glb'));
            $objects = $intake->objects();
            [$facts, $shapes] = self::facts($intake);
            foreach (range(1, $objects->count()) as $row) {
                $node = (int) $objects->keys[$row];
                self::assertSame($model->gltf['nodes'][$node]['name'], $objects->names[$row]);
                self::assertSame(isset($model->gltf['nodes'][$node]['extras']) ? 'Wall' : null, $objects->classes[$row] ?? null);
                $expected = $model->box($node);
                $box = $facts->box($row);
                self::assertSame($expected === null, $box === null, "round $round, node $node");
                if ($expected === null || $box === null) {
                    continue;
                }
                $seen++;
                foreach ([Measure::Width, Measure::Length, Measure::Height] as $axis => $measure) {
                    // Nested many times, scales multiply: what is a kilometre large is exact to a few hundredths of a millimetre.
                    $side = $expected[$axis + 3] - $expected[$axis];
                    $exact = max(1e-5, 1e-7 * max(array_map(abs(...), $expected)));
                    self::assertEqualsWithDelta($side, $facts->measure($measure, $row), $exact, "round $round, node $node");
                    self::assertEqualsWithDelta($expected[$axis], $box[$axis], $exact, "round $round, node $node");
                }
            }
            // What is packed is the mesh, to within the grid of its pack.
            foreach ($intake->meshes() as $index => $_) {
                $given = array_merge(...array_map(self::points(...), $intake->primitives($index)));
                $packed = [];
                foreach ($shapes[$index + 1]->pieces ?? [] as $piece) {
                    foreach (array_chunk(array_values((array) unpack('s*', $piece['positions'])), 4) as $place) {
                        $packed[] = array_map(static fn (int $axis): float => ($place[$axis] * $shapes[$index + 1]->scale[$axis]) / 32767, [
                            0,
                            1,
                            2,
                        ]);
                    }
                }
                self::assertCount(count($given), $packed);
                foreach ([0, 1, 2] as $axis) {
                    $middle = (min(array_column($given, $axis)) + max(array_column($given, $axis))) / 2;
                    foreach ($given as $at => $point) {
                        self::assertEqualsWithDelta($point[$axis] - $middle, $packed[$at][$axis], 1e-4);
                    }
                }
            }
        }
        self::assertGreaterThan(300, $seen);
    }

    public function test_the_same_model_has_the_same_keys_however_it_is_written_and_each_is_its_own(): void
    {
        mt_srand(5);
        for ($round = 0; $round < 12; $round++) {
            $model = ForeignModel::grow(mt_rand(1, 120));
            $keys = array_map(static fn (string $how): array => StableKeys::of(Files::open($model->write($how))->objects()), [
                'glb',
                'gltf',
                'zip',
            ]);
            self::assertSame($keys[0], $keys[1]);
            self::assertSame($keys[0], $keys[2]);
            self::assertSame(count($keys[0]), count(array_unique($keys[0])), "round $round");
        }
    }

    public function test_no_name_takes_the_key_of_another(): void
    {
        $names = ['', '', '#1', '#2', 'a', 'a', 'a#2', '=7', 'a/b', '~1', 'a~1b', '~', '=', 'A'];
        $nodes = array_map(static fn (string $name): array => ['name' => $name], $names);
        // Something whose own identity looks like another's path, and two that claim the same one.
        $nodes[] = ['name' => 'x', 'extras' => ['guid' => '7']];
        $nodes[] = ['name' => 'y', 'extras' => ['guid' => 'twice']];
        $nodes[] = ['name' => 'z', 'extras' => ['guid' => 'twice']];
        $nodes[] = ['name' => 'a', 'children' => range(count($nodes) + 1, count($nodes) + 2)];
        array_push($nodes, ['name' => 'b'], ['name' => '']);
        $gltf = ['asset' => ['version' => '2.0'], 'nodes' => $nodes];
        $keys = StableKeys::of(Files::open(Gltf::file($gltf))->objects());
        self::assertSame(count($keys), count(array_unique($keys)), implode(' | ', $keys));
        self::assertContains('=7', $keys);
        self::assertContains('~37', $keys);
        self::assertContains('a#3/b', $keys);
        self::assertContains('a#3/#1', $keys);
    }

    /** @return array{Facts, array<int, \VineShelf\Geometry\Shape>} facts, and shapes by mesh number, one more than its index */
    private static function facts(Intake $intake): array
    {
        $objects = $intake->objects();
        $writer = new PackWriter;
        $meshes = [];
        $hulls = '';
        foreach ($intake->meshes() as $index => $_) {
            $primitives = $intake->primitives($index);
            $packed = $writer->add($index + 1, $primitives, []);
            $meshes[$index + 1] = ['pack' => 1, 'triangles' => $packed->triangles, 'colour' => 0, 'box' => $packed->box];
            $hulls .= Hulls::entry($index + 1, Hull::of(array_map(static fn (Primitive $one): string => $one->positions, $primitives)));
        }
        $parents = $kinds = $meshOf = $placed = [];
        $placements = '';
        foreach (range(1, $objects->count()) as $row) {
            $parents[$row] = $objects->parents[$row];
            $kinds[$row] = $objects->kinds[$row];
            if ($objects->meshes[$row] >= 0) {
                $meshOf[$row] = $objects->meshes[$row] + 1;
                $placed[$row] = strlen($placements);
                $placements .= substr($objects->transforms, $row * 96, 96);
            }
        }
        $columns = SceneBuilder::columns($parents, array_fill_keys(array_keys($parents), 1), $kinds, [], []);
        /** @var list<int> $order */
        $order = array_values((array) unpack('V*', $columns['no']));
        $columns += DrawRecords::columns($order, $meshOf, $placed, $placements, $meshes, $hulls) + ['spots' => ''];

        return [new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($columns)))), PackReader::shapes($writer->finish())];
    }

    /** @return list<array{float, float, float}> */
    private static function points(Primitive $primitive): array
    {
        /** @var list<array{float, float, float}> */
        return array_chunk(array_values((array) unpack('g*', $primitive->positions)), 3);
    }
}
