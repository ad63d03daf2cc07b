<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Facts\Order;
use VineShelf\Facts\Ordered;
use VineShelf\Facts\Ranked;
use VineShelf\Facts\Tally;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Counter;

final class BitsTest extends TestCase
{
    public function test_sets_of_rows_behave_like_plain_arrays_of_rows(): void
    {
        mt_srand(3);
        for ($round = 0; $round < 300; $round++) {
            $length = mt_rand(0, 70);
            [$a, $b] = [self::some($length), self::some($length)];
            [$x, $y] = [Bits::ofRows($length, $a), Bits::ofRows($length, $b)];
            self::assertSame($a, $x->rows());
            self::assertSame(count($a), $x->count());
            self::assertSame($a === [], $x->isEmpty());
            self::assertSame(array_values(array_intersect($a, $b)), $x->and($y)->rows());
            self::assertSame(self::sorted([...$a, ...$b]), $x->or($y)->rows());
            self::assertSame(array_values(array_diff($a, $b)), $x->without($y)->rows());
            self::assertSame($length === 0 ? [] : array_values(array_diff(range(1, $length), $a)), $x->not()->rows());
            self::assertEquals($x, Bits::ofRanges($length, $x->ranges()));
            self::assertSame($a, array_merge(...array_map(static fn (array $range): array => range($range[0], $range[1]), $x->ranges())));
            $some = $x->some(5);
            self::assertSame([], array_diff($some, $a));
            self::assertSame($a === [], $some === []);
            self::assertSame(array_values(array_unique($some)), $some);
            [$first, $last] = [mt_rand(0, $length), mt_rand(0, $length)];
            if ($first <= $last) {
                $between = array_filter($a, static fn (int $row): bool => $row >= $first && $row <= $last);
                self::assertSame(count($between), $x->countBetween($first, $last));
            }
            $offset = mt_rand(0, 20);
            self::assertSame(array_slice($a, $offset, 7), $x->slice($offset, 7));
            for ($row = 1; $row <= $length; $row++) {
                self::assertSame(in_array($row, $a, true), $x->has($row));
                self::assertSame(count(array_filter($a, static fn (int $other): bool => $other < $row)), $x->rank($row));
            }
        }
    }

    public function test_sets_that_reach_differently_far_are_joined_shared_and_taken_away(): void
    {
        mt_srand(4);
        for ($round = 0; $round < 300; $round++) {
            [$short, $long] = [mt_rand(0, 70), mt_rand(0, 70)];
            [$a, $b] = [self::some($short), self::some($long)];
            [$x, $y] = [Bits::ofRows($short, $a), Bits::ofRows($long, $b)];
            self::assertSame(self::sorted([...$a, ...$b]), $x->with($y)->rows());
            self::assertSame(array_values(array_diff($a, $b)), $x->less($y)->rows());
            self::assertEquals(Bits::ofRows($short, array_values(array_intersect($a, $b))), $x->shared($y));
        }
    }

    public function test_overlapping_and_touching_ranges_are_put_together(): void
    {
        self::assertSame(range(2, 30), Bits::ofRanges(40, [[2, 9], [3, 5], [10, 16], [17, 30], [18, 20]])->rows());
        self::assertSame(40, Bits::all(40)->count());
        self::assertSame(20_000, count(Bits::all(50_000)->slice(30_000, 60_000)));
        self::assertSame([49_999, 50_000], Bits::all(50_000)->slice(49_998, 9));
    }

    public function test_ranked_numbers_compare_as_a_loop_does(): void
    {
        mt_srand(9);
        for ($round = 0; $round < 120; $round++) {
            $count = mt_rand(1, $round % 4 === 0 ? 400 : 50);
            $values = [];
            for ($row = 1; $row <= $count; $row++) {
                if (mt_rand(0, 3) > 0) {
                    $values[$row] = [mt_rand(-3, 3), mt_rand(-30, 30) / 10, -0.0][mt_rand(0, 2)];
                }
            }
            $ranked = Ranked::unpack(Ranked::pack($values, $count));
            [$low, $high] = [mt_rand(-40, 20) / 10, mt_rand(-20, 40) / 10];
            foreach ([[true, true], [true, false], [false, true], [false, false]] as [$withLow, $withHigh]) {
                $slow = array_keys(
                    array_filter(
                        $values,
                        static fn (float|int $value): bool => ($withLow ? $value >= $low : $value > $low) &&
                            ($withHigh ? $value <= $high : $value < $high),
                    ),
                );
                self::assertSame($slow, $ranked->between($low, $high, $withLow, $withHigh)->rows());
            }
            self::assertSame(array_keys($values), $ranked->present()->rows());
            // The rows in the order of their numbers, and where those of each begin.
            $by = [];
            foreach ($values as $row => $value) {
                $by[(string) ($value + 0.0)][] = $row;
            }
            uksort($by, static fn (string|int $a, string|int $b): int => (float) $a <=> (float) $b);
            $bytes = "\0".implode('', array_map(static fn (): string => chr(mt_rand(0, 255)), range(1, $count)));
            $ordered = array_merge([], ...array_values($by));
            self::assertSame(implode('', array_map(static fn (int $row): string => $bytes[$row], $ordered)), $ranked->sorted($bytes));
            self::assertSame(array_map(floatval(...), array_keys($by)), array_values(unpack('e*', $ranked->numbers()) ?: []));
            $starts = [0];
            foreach ($by as $rows) {
                $starts[] = (int) end($starts) + count($rows);
            }
            self::assertSame($starts, $ranked->starts());
            $some = [mt_rand(-3, 3), mt_rand(-3, 3), 0, 99];
            self::assertSame(
                array_keys(
                    array_filter(
                        $values,
                        static fn (float|int $value): bool => in_array((float) $value, array_map(floatval(...), $some), true),
                    ),
                ),
                $ranked->in($some)->rows(),
            );
            self::assertSame(count(array_filter($values, static fn (float|int $value): bool => $value == 1)), $ranked->count(1));
        }
    }

    public function test_equal_rows_keep_their_order_in_both_directions_and_those_without_a_value_come_last(): void
    {
        $values = [1 => 5, 2 => 1.0, 4 => 5, 5 => 9, 6 => 1];
        self::assertSame([2, 6, 1, 4, 5, 3, 7], Order::by($values, 7, false));
        self::assertSame([5, 1, 4, 2, 6, 3, 7], Order::by($values, 7, true));
        $names = array_map(Order::sortKey(...), [1 => 'Seat 10', 2 => 'seat 9', 3 => 'Seat 010', 4 => '10', 5 => '9', 6 => 'Äpfel']);
        self::assertSame([5, 4, 2, 1, 3, 6], Order::by($names, 6, false));
    }

    public function test_some_of_the_rows_in_an_order_are_those_of_filtering_the_whole(): void
    {
        mt_srand(21);
        for ($round = 0; $round < 60; $round++) {
            $length = mt_rand(1, $round % 5 === 0 ? 9000 : 300);
            $rows = range(1, $length);
            shuffle($rows);
            $order = Ordered::unpack(Ordered::pack($rows));
            $among = self::some($length);
            $bits = Bits::ofRows($length, $among);
            $is = array_flip($among);
            $kept = array_values(array_filter($rows, static fn (int $row): bool => isset($is[$row])));
            foreach ([0, mt_rand(0, $length), $length - 1] as $offset) {
                self::assertSame(array_slice($rows, $offset, 9), $order->slice($offset, 9));
                self::assertSame(array_slice($kept, $offset, 9), $order->sliceOf($bits, $offset, 9));
            }
            $row = $rows[array_rand($rows)];
            self::assertSame(array_search($row, $rows, true), $order->place($row));
            if (isset($is[$row])) {
                self::assertSame(array_search($row, $kept, true), $order->place($row, $bits));
            }
            $counter = new Counter($bits);
            for ($try = 0; $try < 20; $try++) {
                $at = mt_rand(1, $length + 1);
                self::assertSame(count(array_filter($among, static fn (int $one): bool => $one < $at)), $counter->before($at));
            }
        }
    }

    public function test_tallies_are_those_of_counting_row_by_row(): void
    {
        mt_srand(22);
        for ($round = 0; $round < 20; $round++) {
            $model = PlainModel::grow(mt_rand(1, 50));
            foreach (
                ['layer' => $model->forest->layerOf, 'kind' => $model->forest->kinds, 'source' => $model->sources] as $column => $values
            ) {
                $rows = $triangles = [];
                foreach ($values as $number => $value) {
                    $rows[$value] = ($rows[$value] ?? 0) + 1;
                    $triangles[$value] = ($triangles[$value] ?? 0) + ($model->forest->triangles[$number] ?? 0);
                }
                self::assertEquals(
                    [$rows, $triangles],
                    [Tally::of($model->facts->scene, $column)->rows, Tally::of($model->facts->scene, $column)->triangles],
                    $column,
                );
            }
            self::assertSame(count($model->names), array_sum(Tally::of($model->facts->scene, 'kindclass')->rows));
            self::assertSame(array_sum($model->forest->triangles), array_sum(Tally::of($model->facts->scene, 'surfaces')->triangles));
        }
    }

    /** @return list<int> */
    private static function some(int $length): array
    {
        $rows = [];
        $often = mt_rand(0, 4);
        for ($row = 1; $row <= $length; $row++) {
            if (mt_rand(0, 4) < $often) {
                $rows[] = $row;
            }
        }

        return $rows;
    }

    /**
     * @param list<int> $rows
     *
     * @return list<int>
     */
    private static function sorted(array $rows): array
    {
        $rows = array_unique($rows);
        sort($rows);

        return $rows;
    }
}
