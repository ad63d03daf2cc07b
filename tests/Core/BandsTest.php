<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\Levels;

/** Rows sorted by a column of few values, against PHP's own stable sort. */
final class BandsTest extends TestCase
{
    /** @return iterable<string, array{int, int, int}> */
    public static function columns(): iterable
    {
        yield 'one row' => [1, 1, 1];
        yield 'one value' => [2, 40, 1];
        yield 'a few values' => [3, 200, 5];
        yield 'more values than rows' => [4, 12, 30];
        yield 'more values than a byte tells apart' => [5, 2000, 700];
    }

    #[DataProvider('columns')]
    public function test_windows_and_places_are_those_of_a_sorted_list(int $seed, int $length, int $different): void
    {
        mt_srand($seed);
        $value = [];
        for ($row = 1; $row <= $length; $row++) {
            $value[$row] = mt_rand(1, $different) * 3;
        }
        // Values that no row has are in the order too, as layers without objects are.
        $order = array_map(static fn (int $n): int => $n * 3, range(0, $different + 1));
        shuffle($order);
        $this->agree(Bands::ofCoded(Coded::fromValues($value), $order), $value, $order);
    }

    public function test_steps_sort_as_other_values_do(): void
    {
        mt_srand(9);
        $value = [];
        for ($row = 1; $row <= 150; $row++) {
            $value[$row] = [0, 2, 5][mt_rand(0, 2)];
        }
        $this->agree(Bands::ofLevels(Levels::fromValues(5, $value), [5, 4, 3, 2, 1, 0]), $value, [5, 4, 3, 2, 1, 0]);
    }

    public function test_sets_sort_by_the_first_that_a_row_is_in_and_the_rest_comes_last(): void
    {
        mt_srand(11);
        foreach ([false, true] as $down) {
            $value = [];
            for ($row = 1; $row <= 180; $row++) {
                $value[$row] = mt_rand(0, 4);
            }
            $sets = array_map(static fn (int $set): Bits => Bits::ofRows(180, array_keys($value, $set, true)), [0, 1, 2, 3]);
            $this->agree(Bands::ofSets(180, $sets, $down), $value, $down ? [3, 2, 1, 0, 4] : [0, 1, 2, 3, 4]);
        }
    }

    public function test_the_step_that_all_rows_share_is_found_and_none_where_they_differ(): void
    {
        mt_srand(12);
        for ($round = 0; $round < 200; $round++) {
            $length = mt_rand(1, 900);
            $steps = array_map(static fn (): int => mt_rand(0, 30) === 0 ? mt_rand(0, 5) : 5, range(1, $length));
            $rows = array_values(array_filter(range(1, $length), static fn (): bool => mt_rand(0, $round % 7) === 0));
            $there = array_unique(array_map(static fn (int $row): int => $steps[$row - 1], $rows));
            self::assertSame(count($there) === 1 ? reset($there) : null, Levels::fromValues(5, $steps)->only(Bits::ofRows($length, $rows)));
        }
    }

    /**
     * @param array<int, int> $value by row
     * @param list<int>       $order
     */
    private function agree(Bands $bands, array $value, array $order): void
    {
        $length = count($value);
        $rank = array_flip($order);
        $half = array_values(array_filter(range(1, $length), static fn (): bool => mt_rand(0, 1) === 1));
        $sets = ['all' => null, 'none' => [], 'half' => $half, 'of one value' => array_keys($value, $value[1], true)];
        foreach ($sets as $name => $set) {
            $sorted = $set ?? range(1, $length);
            usort($sorted, static fn (int $a, int $b): int => $rank[$value[$a]] <=> $rank[$value[$b]] ?: $a <=> $b);
            $among = $set === null ? null : Bits::ofRows($length, $set);
            $windows = [[0, 1], [0, $length], [0, 3 * $length], [intdiv($length, 3), 7], [$length - 1, 5], [$length, 5], [2, 0]];
            foreach ($windows as [$from, $count]) {
                self::assertSame(
                    array_slice($sorted, $from, $count),
                    $among === null ? $bands->slice($from, $count) : $bands->sliceOf($among, $from, $count),
                    "$count of $name from $from",
                );
            }
            foreach ($sorted as $place => $row) {
                self::assertSame($place, $bands->place($row, $among), "row $row of $name");
            }
        }
    }
}
