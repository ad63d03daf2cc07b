<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Facts\Derived;
use VineShelf\Facts\Derived\Blocks;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Measure;
use VineShelf\Facts\Order;
use VineShelf\Facts\Ordered;
use VineShelf\Facts\Ranked;
use VineShelf\Facts\Tally;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Kind;
use VineShelf\Scene\MissingColumn;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Planes;
use VineShelf\Scene\Scene;

/** Columns that follow from others, against plain loops over plain objects. */
final class DerivedTest extends TestCase
{
    /** @return iterable<string, array{int, int}> */
    public static function models(): iterable
    {
        foreach ([1, 2, 3, 17, 64, 65, 200] as $seed => $objects) {
            yield "$objects objects" => [$seed + 50, $objects];
        }
    }

    #[DataProvider('models')]
    public function test_depths_stems_and_instances_are_those_of_the_objects(int $seed, int $objects): void
    {
        $model = self::grow($seed, $objects);
        $scene = $model->facts->scene;
        $column = static fn (string $name): array => Packed::uint32($scene->column($name), 0, $scene->count() + 1);
        [$depths, $stems, $instances] = array_map($column, ['depths', 'stem', 'instances']);
        $byStem = [];
        foreach ($model->forest->parents as $number => $parent) {
            $row = $scene->row($number);
            for ($depth = 1; $parent !== 0; $depth++) {
                $parent = $model->forest->parents[$parent];
            }
            self::assertSame($depth, $depths[$row], "depth of $number");
            // However often each of its users is drawn, a mesh is placed by every placement.
            $places = 0;
            foreach ($model->meshes as $other => $mesh) {
                $places += $mesh !== 0 && $mesh === $model->meshes[$number] ? count($model->placements[$other]) : 0;
            }
            self::assertSame($model->meshes[$number] === 0 ? 0 : $places, $instances[$row], "instances of $number");
            self::assertSame($model->names[$number] === '', $stems[$row] === 0, "stem of $number");
            $byStem[$stems[$row]][self::stem($model->names[$number])] = true;
        }
        foreach ($byStem as $stem => $names) {
            self::assertCount(1, $names, "stem $stem");
        }
        self::assertCount(count(array_unique(array_map(self::stem(...), $model->names))), $byStem);
    }

    #[DataProvider('models')]
    public function test_sets_and_sums_are_those_of_the_objects(int $seed, int $objects): void
    {
        $model = self::grow($seed, $objects);
        $scene = $model->facts->scene;
        $holds = array_flip($model->forest->parents);
        $fits = [
            'groups' => static fn (int $number): bool => isset($holds[$number]),
            'unnamed' => static fn (int $number): bool => $model->names[$number] === '',
            'properties' => static fn (int $number): bool => $model->properties[$number] !== [],
        ];
        foreach ($fits as $name => $test) {
            $expected = [];
            foreach (array_keys($model->forest->parents) as $number) {
                if ($test($number)) {
                    $expected[] = $scene->row($number);
                }
            }
            sort($expected);
            self::assertSame($expected, Bits::ofBytes($scene->count(), $scene->column("bits.$name"))->rows(), $name);
        }
        $rows = array_values(array_filter(range(1, $scene->count()), static fn (): bool => mt_rand(0, 2) > 0));
        $set = Bits::ofRows($scene->count(), $rows);
        $triangles = $placements = 0;
        foreach ($rows as $row) {
            $number = $scene->number($row);
            $triangles += $model->forest->triangles[$number] ?? 0;
            $placements += $model->meshes[$number] === 0 ? 0 : count($model->placements[$number]);
        }
        self::assertSame($triangles, Planes::unpack($scene->column('planes.triangles'))->sum($set));
        self::assertSame($placements, Planes::unpack($scene->column('planes.placements'))->sum($set));
    }

    #[DataProvider('models')]
    public function test_tallies_count_what_each_value_has(int $seed, int $objects): void
    {
        $model = self::grow($seed, $objects);
        $scene = $model->facts->scene;
        $words = array_flip(array_map(strval(...), $model->facts->words('class.words')));
        $of = [
            'layer' => $model->forest->layerOf,
            'source' => $model->sources,
            'kind' => $model->forest->kinds,
            'class' => array_map(static fn (string $class): int => $class === '' ? 0 : $words[$class], $model->classes),
        ];
        foreach ($model->forest->kinds as $number => $kind) {
            $of['kindclass'][$number] = 16 * $of['class'][$number] + $kind;
        }
        foreach ($of as $name => $values) {
            $rows = $triangles = [];
            foreach ($values as $number => $value) {
                $rows[$value] = ($rows[$value] ?? 0) + 1;
                $triangles[$value] = ($triangles[$value] ?? 0) + ($model->forest->triangles[$number] ?? 0);
            }
            $tally = Tally::of($scene, $name);
            ksort($rows);
            ksort($triangles);
            $found = [$tally->rows, $tally->triangles];
            ksort($found[0]);
            ksort($found[1]);
            self::assertSame([$rows, $triangles], $found, $name);
        }
    }

    #[DataProvider('models')]
    public function test_measures_are_ranked_and_sorted_as_a_list_of_them_is(int $seed, int $objects): void
    {
        $model = self::grow($seed, $objects);
        $scene = $model->facts->scene;
        foreach (Measure::cases() as $measure) {
            $values = [];
            foreach (range(1, $scene->count()) as $row) {
                $value = $model->facts->measure($measure, $row);
                if ($value !== null) {
                    $values[$row] = round((float) $value, $measure->dimension() === 3 ? 12 : 5);
                }
            }
            $ranked = $model->facts->ranked($measure->value);
            self::assertSame(array_keys($values), $ranked->present()->rows(), $measure->value);
            foreach ($values === [] ? [0.0] : array_slice(array_unique($values), 0, 6) as $limit) {
                $limit = (float) $limit;
                $below = array_keys(array_filter($values, static fn (float $value): bool => $value <= $limit));
                self::assertSame($below, $ranked->between(-INF, $limit)->rows(), "$measure->value up to $limit");
                $above = array_keys(array_filter($values, static fn (float $value): bool => $value > $limit));
                self::assertSame($above, $ranked->between($limit, INF, false)->rows(), "$measure->value above $limit");
                self::assertSame(count($values) - count($above) - count($below), 0);
            }
            foreach (['up' => 1, 'down' => -1] as $way => $sign) {
                $expected = range(1, $scene->count());
                // Rows without a value come last in both directions; equal ones keep their order.
                usort(
                    $expected,
                    static fn (int $a, int $b): int => [! isset($values[$a]), $sign * (($values[$a] ?? 0) <=> ($values[$b] ?? 0)), $a] <=> [
                        ! isset($values[$b]),
                        0,
                        $b,
                    ],
                );
                $ordered = Ordered::unpack($scene->column("order.$measure->value.$way"));
                self::assertSame($expected, $ordered->slice(0, $scene->count()), "$measure->value $way");
            }
        }
    }

    public function test_numbers_of_all_sizes_are_ranked_as_a_sorted_list_is(): void
    {
        mt_srand(71);
        foreach ([0, 1, 2, 7, 48, 49, 500, 4000] as $count) {
            $length = $count + mt_rand(0, 40);
            $pool = [0.0, -0.0, 1.0, -1.0, 1e-12, -1e300, 1e300, (float) PHP_INT_MAX, 0.1 + 0.2, 0.3];
            $numbers = [];
            foreach ((array) array_rand(array_fill(1, $length + 1, 0), max(1, $count)) as $row) {
                if ($count > 0 && $row <= $length) {
                    $numbers[(int) $row] = mt_rand(0, 2) === 0 ? $pool[mt_rand(0, 9)] : mt_rand(-60, 60) / 4;
                }
            }
            ksort($numbers);
            $ranked = Ranked::unpack(Ranked::pack($numbers, $length));
            for ($round = 0; $round < 40; $round++) {
                [$low, $high] = [$pool[mt_rand(0, 9)] * mt_rand(0, 2), $pool[mt_rand(0, 9)] + mt_rand(-50, 50) / 4];
                [$withLow, $withHigh] = [mt_rand(0, 1) === 1, mt_rand(0, 1) === 1];
                $expected = array_keys(
                    array_filter(
                        $numbers,
                        static fn (float $n): bool => ($withLow ? $n >= $low : $n > $low) && ($withHigh ? $n <= $high : $n < $high),
                    ),
                );
                $found = $low > $high ? [] : $ranked->between($low, $high, $withLow, $withHigh)->rows();
                self::assertSame($low > $high ? [] : $expected, $found, "$count numbers from $low to $high");
                self::assertSame(count(array_keys($numbers, $low, false)), $ranked->count($low));
            }
            $some = array_map(static fn (): int => mt_rand(-15, 15), range(1, 12));
            self::assertSame(
                array_keys(array_filter($numbers, static fn (float $n): bool => in_array($n, array_map(floatval(...), $some), true))),
                $ranked->in($some)->rows(),
            );
        }
    }

    public function test_parts_of_an_order_are_those_of_the_list(): void
    {
        mt_srand(72);
        foreach ([1, 63, 64, 65, 1000, 5000] as $count) {
            $values = [];
            foreach (range(1, $count) as $row) {
                if (mt_rand(0, 9) > 0) {
                    $values[$row] = mt_rand(0, intdiv($count, 3));
                }
            }
            $rows = Order::by($values, $count, mt_rand(0, 1) === 1);
            $ordered = Ordered::unpack(Ordered::pack($rows));
            for ($round = 0; $round < 30; $round++) {
                $share = [1, 2, 50, 900][$round % 4];
                $set = Bits::ofRows($count, array_values(array_filter(range(1, $count), static fn (): bool => mt_rand(1, $share) === 1)));
                $kept = array_values(array_filter($rows, $set->has(...)));
                $offset = mt_rand(0, count($kept) + 2);
                $wanted = mt_rand(0, 90);
                self::assertSame(array_slice($kept, $offset, $wanted), $ordered->sliceOf($set, $offset, $wanted), "$count rows, $offset");
                self::assertSame(array_slice($rows, $offset, $wanted), $ordered->slice($offset, $wanted));
                if ($kept !== []) {
                    $row = $kept[mt_rand(0, count($kept) - 1)];
                    self::assertSame(array_search($row, $kept, true), $ordered->place($row, $set));
                    self::assertSame(array_search($row, $rows, true), $ordered->place($row));
                }
            }
        }
    }

    #[DataProvider('models')]
    public function test_blocks_hold_each_row_that_draws_once_and_are_around_all_that_it_draws(int $seed, int $objects): void
    {
        $model = self::grow($seed, $objects);
        $scene = $model->facts->scene;
        $drawing = [];
        foreach ($model->placements as $number => $placements) {
            if ($model->meshes[$number] !== 0 && $placements !== []) {
                $drawing[] = $scene->row($number);
            }
        }
        sort($drawing);
        foreach (Blocks::SIZES as $size) {
            $blocks = $scene->column("blocks.$size");
            self::assertSame((int) ceil(count($drawing) / $size) * 24, strlen($blocks));
            $found = [];
            for ($block = 0; $block * 24 < strlen($blocks); $block++) {
                $around = Packed::float32($blocks, $block * 24, 6);
                foreach (Blocks::rows($scene->column('near'), $size, $block) as $row) {
                    $found[] = $row;
                    foreach (Packed::float32($scene->column('box'), $row * 24, 6) as $side => $reach) {
                        self::assertTrue($side < 3 ? $around[$side] <= $reach : $around[$side] >= $reach, "side $side of row $row");
                    }
                }
            }
            sort($found);
            self::assertSame($drawing, $found);
        }
        self::assertSame([], Blocks::rows($scene->column('near'), 64, count($drawing)));
    }

    public function test_rows_that_stand_together_are_near_each_other_however_the_model_is_sorted(): void
    {
        // 4,096 cubes on a grid, shuffled: a block is 64 neighbours and not 64 of anywhere.
        mt_srand(4);
        $places = range(0, 4095);
        shuffle($places);
        $boxes = pack('g6', 0, 0, 0, 0, 0, 0);
        foreach ($places as $place) {
            [$x, $y, $z] = [$place & 15, ($place >> 4) & 15, $place >> 8];
            $boxes .= pack('g6', $x, $y, $z, $x + 0.5, $y + 0.5, $z + 0.5);
        }
        $columns = ['kind' => str_repeat("\1", 4097), 'box' => $boxes, 'recordAt' => pack('V*', 0, ...range(0, 4096))];
        $near = Derived::make(new Scene(new ColumnsInMemory($columns)), 'near');
        $scene = new Scene(new DerivedColumns(new ColumnsInMemory($columns + ['near' => $near])));
        foreach ([64 => 70.0, 8 => 8.0, 1 => 0.126] as $size => $most) {
            $blocks = $scene->column("blocks.$size");
            self::assertSame(intdiv(4096, $size) * 24, strlen($blocks));
            for ($block = 0; $block < intdiv(4096, $size); $block++) {
                [$x1, $y1, $z1, $x2, $y2, $z2] = Packed::float32($blocks, $block * 24, 6);
                self::assertLessThan($most, ($x2 - $x1) * ($y2 - $y1) * ($z2 - $z1), 'of 4,096 cubic metres');
            }
        }
    }

    public function test_as_many_classes_are_told_apart_as_there_are_objects(): void
    {
        $scene = new Scene(new ColumnsInMemory([
            'kind' => str_repeat("\1\2", 35_001),
            'class' => pack('V*', ...range(0, 70_001)),
            'triangles' => pack('P*', ...range(0, 70_002)),
        ]));
        $tally = Tally::of($scene, 'kindclass');
        self::assertCount(70_001, $tally->rows);
        self::assertSame([1], array_values(array_unique($tally->rows)));
        // Row 65,536 has another class than row 0, whose number ends as its own does.
        self::assertSame(1, $tally->rows[Tally::ofKind(1, 65_536)]);
    }

    public function test_a_column_that_cannot_be_is_named(): void
    {
        $names = ['ranked.colour', 'order.name', 'bits.heavy', 'planes.', 'blocks', 'blocks.2', 'nothing', 'order.property.x.up'];
        foreach ($names as $name) {
            self::assertFalse(Derived::has($name), $name);
            try {
                Derived::needs($name);
                self::fail("$name needs something");
            } catch (MissingColumn $missing) {
                self::assertStringContainsString($name, $missing->getMessage());
            }
        }
        foreach (Derived::usual() as $name) {
            self::assertTrue(Derived::has($name), $name);
            self::assertNotSame([], Derived::needs($name), $name);
        }
    }

    private static function grow(int $seed, int $objects): PlainModel
    {
        mt_srand($seed);
        $model = PlainModel::grow($objects);
        self::assertCount($objects, $model->forest->parents);
        self::assertLessThanOrEqual(count(Kind::cases()), count(array_unique($model->forest->kinds)));

        return $model;
    }

    /** The name without the number that it ends in and what parts it from it. */
    private static function stem(string $name): string
    {
        $end = strlen(rtrim($name, '0123456789'));

        return $end === strlen($name) ? mb_strtolower($name) : mb_strtolower(rtrim(substr($name, 0, $end), ' ._-#'));
    }
}
