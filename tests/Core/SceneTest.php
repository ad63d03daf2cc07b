<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use Tests\Core\Support\Node;
use Tests\Core\Support\RandomForest;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Drawn;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Kind;
use VineShelf\Scene\MissingColumn;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;

final class SceneTest extends TestCase
{
    public function test_rows_follow_the_nesting_depth_first(): void
    {
        mt_srand(31);
        for ($round = 0; $round < 200; $round++) {
            $forest = RandomForest::grow(mt_rand(1, 40));
            $scene = $forest->scene();
            $order = self::depthFirst($forest->parents, 0);
            self::assertSame(count($order), $scene->count());
            foreach ($order as $index => $number) {
                $row = $index + 1;
                self::assertSame([$number, $row], [$scene->number($row), $scene->row($number)]);
                self::assertSame($forest->kinds[$number], $scene->kind($row)->value);
                $below = self::depthFirst($forest->parents, $number);
                self::assertSame($row + count($below), $scene->end($row), 'a subtree is a range');
                self::assertSame(array_keys($forest->parents, $number, true), array_map($scene->number(...), $scene->children($row)));
                $above = [];
                for ($parent = $forest->parents[$number]; $parent !== 0; $parent = $forest->parents[$parent]) {
                    $above[] = $parent;
                }
                self::assertSame($above, array_map($scene->number(...), $scene->ancestors($row)));
                self::assertSame(count($above) + 1, $scene->depth($row));
                $weight = array_sum(array_map(static fn (int $inner): int => $forest->triangles[$inner] ?? 0, [$number, ...$below]));
                self::assertSame($weight, $scene->triangles($row, $scene->end($row)));
            }
            $holding = array_values(array_filter($order, static fn (int $number): bool => in_array($number, $forest->parents, true)));
            self::assertSame($holding, array_map($scene->number(...), $scene->groups()));
            self::assertSame(0, $scene->row(max($order) + 1));
            self::assertSame(0, $scene->row(0));
        }
    }

    public function test_a_loop_among_the_objects_is_noticed(): void
    {
        $this->expectExceptionMessage('The objects do not form a forest: 2 of them are under no root.');
        SceneBuilder::columns([1 => 0, 2 => 3, 3 => 2], [1 => 1, 2 => 1, 3 => 1], [1 => 0, 2 => 0, 3 => 0], [], []);
    }

    public function test_a_missing_column_is_named(): void
    {
        $this->expectException(MissingColumn::class);
        $this->expectExceptionMessage('The scene index has no column "kind"');
        (new Scene(new ColumnsInMemory([])))->count();
    }

    public function test_draw_records_hold_every_placement_with_its_mesh_and_nothing_else(): void
    {
        $facts = [
            3 => ['pack' => 1, 'triangles' => 12, 'colour' => 0xff0000ff, 'box' => new Box(0, 0, 0, 1, 1, 1)],
            7 => ['pack' => 2, 'triangles' => 500, 'colour' => 0x80ffffff, 'box' => new Box(-5, -5, -5, 5, 5, 5)],
        ];
        $at = static fn (float $x): string => Affine::pack([1.0, 0.0, 0.0, $x, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0]);
        // Objects 1 to 5 in rows 1 to 5: a group, a part, an object drawn twice, a part of an unknown mesh, a big part.
        $columns =
            SceneBuilder::columns(
                [1 => 0, 2 => 1, 3 => 1, 4 => 1, 5 => 0],
                array_fill(1, 5, 1),
                [1 => 0, 2 => 1, 3 => 1, 4 => 1, 5 => 1],
                [],
                [],
            ) +
            DrawRecords::columns(
                [0, 1, 2, 3, 4, 5],
                [2 => 3, 3 => 3, 4 => 9, 5 => 7],
                [2 => 0, 3 => 96, 4 => 288, 5 => 384],
                $at(10).$at(20).$at(30).$at(40).$at(50),
                $facts,
            );
        $scene = new Scene(new DerivedColumns(new ColumnsInMemory($columns)));

        self::assertSame([[2, 3, 10.5], [3, 3, 20.5], [3, 3, 30.5], [5, 7, 50.0]], self::decoded(Drawn::of($scene, [[1, 5]])));
        self::assertSame([[3, 3, 20.5], [3, 3, 30.5]], self::decoded(Drawn::of($scene, [[3, 3]])));
        self::assertSame([1, 1, 2], Packed::uint32(Drawn::of($scene, [[3, 3]]), 0, 3), 'one mesh, one form that is shared, two places');
        self::assertSame([], self::decoded(Drawn::of($scene, [[1, 1], [4, 4]])));
        self::assertSame([5, 2, 3], Packed::uint32($scene->column('biggest'), 0, 3), 'the biggest comes first');
        self::assertSame([0.0, 0.0, 0.0], Packed::float64($scene->column('origin'), 0, 3));
    }

    public function test_places_far_away_keep_their_millimetres(): void
    {
        $far = Affine::pack([1.0, 0.0, 0.0, 3_456_789.123, 0.0, 1.0, 0.0, 5_432_100.456, 0.0, 0.0, 1.0, 12.789]);
        $columns = DrawRecords::columns([0, 1], [1 => 1], [1 => 0], $far, [
            1 => ['pack' => 1, 'triangles' => 1, 'colour' => 0, 'box' => new Box(0, 0, 0, 1, 1, 1)],
        ]);
        $origin = Packed::float64($columns['origin'], 0, 3);
        $kept = Packed::float32($columns['records'], 8, 12);

        self::assertSame([3_456_800.0, 5_432_100.0, 0.0], $origin);
        self::assertEqualsWithDelta(
            [3_456_789.623, 5_432_100.956, 13.289],
            [$origin[0] + $kept[3], $origin[1] + $kept[7], $origin[2] + $kept[11]],
            1e-4,
        );
    }

    public function test_colours_become_bytes_as_screens_show_them(): void
    {
        self::assertSame(0xffffffff, DrawRecords::colour([1.0, 1.0, 1.0, 1.0]));
        self::assertSame(0x00000000, DrawRecords::colour([0.0, -1.0, 0.0, 0.0]));
        self::assertSame(
            [188, 0, 255, 128],
            array_map(static fn (int $shift): int => (DrawRecords::colour([0.5, 0.0, 3.0, 0.5]) >> $shift) & 255, [0, 8, 16, 24]),
        );
    }

    public function test_kinds_are_counted_in_words(): void
    {
        self::assertSame(
            ['1 part', '1,200 parts', '2 point sets', '1 point set'],
            [Kind::Part->counted(1), Kind::Part->counted(1200), Kind::Points->counted(2), Kind::Points->counted(1)],
        );
        self::assertSame([true, false, true], [Kind::Curve->draws(), Kind::Light->draws(), Kind::Points->draws()]);
    }

    /**
     * @param array<int, int> $parents
     *
     * @return list<int>
     */
    private static function depthFirst(array $parents, int $from): array
    {
        $order = [];
        foreach (array_keys($parents, $from, true) as $child) {
            array_push($order, $child, ...self::depthFirst($parents, $child));
        }

        return $order;
    }

    /** @return list<array{int, int, float}> object, mesh, x of all that the canvas makes of an answer */
    private static function decoded(string $bytes): array
    {
        return array_map(
            static fn (array $placement): array => [$placement['object'], $placement['mesh'], (float) $placement['m'][3]],
            Node::run('placements.mjs', Gltf::keep(pack('V', 1).$bytes)),
        );
    }
}
