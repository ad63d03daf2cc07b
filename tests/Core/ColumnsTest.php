<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Facts\Codes;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Planes;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;

/** Columns that are worked on as whole strings, against plain lists. */
final class ColumnsTest extends TestCase
{
    public function test_coded_columns_answer_as_lists_do(): void
    {
        mt_srand(5);
        foreach ([0, 1, 7, 8, 9, 255, 1000, 3000] as $length) {
            foreach ([1, 3, 255, 256, 600] as $different) {
                $list = $length === 0 ? [] : array_map(static fn (): int => mt_rand(1, $different) * 7, range(1, $length));
                $column = Coded::unpack(Coded::fromValues($list)->pack());
                self::assertSame($list, $column->toList());
                $this->assertAnswers($list, $column);
                $rows = array_keys(array_filter($list, static fn (): bool => mt_rand(0, 2) === 0));
                $changed = Bits::ofRows($length, array_map(static fn (int $at): int => $at + 1, $rows));
                foreach ([5, 7] as $value) {
                    $column = $column->with($changed, $value);
                    foreach ($rows as $at) {
                        $list[$at] = $value;
                    }
                    self::assertSame($list, $column->toList());
                }
                $this->assertAnswers($list, Coded::unpack($column->pack()));
            }
        }
    }

    public function test_a_coded_column_grows_past_one_block_of_values(): void
    {
        $column = Coded::constant(900, 1);
        $list = array_fill(1, 900, 1);
        for ($value = 2; $value < 800; $value++) {
            $column = $column->with(Bits::ofRows(900, [$value]), $value * 3);
            $list[$value] = $value * 3;
        }
        self::assertSame(array_values($list), $column->toList());
        $this->assertAnswers(array_values($list), $column);
    }

    public function test_levels_answer_as_lists_do(): void
    {
        mt_srand(6);
        foreach ([0, 1, 8, 63, 500] as $length) {
            for ($round = 0; $round < 20; $round++) {
                $make = static fn (): array => $length === 0 ? [] : array_map(static fn (): int => mt_rand(0, 5), range(1, $length));
                [$a, $b] = [$make(), $make()];
                [$x, $y] = [Levels::fromValues(5, $a), Levels::fromValues(5, $b)];
                self::assertSame(array_map(min(...), $a, $b), self::steps($x->lowest($y)));
                self::assertSame(array_map(max(...), $a, $b), self::steps($x->highest($y)));
                self::assertEquals(array_count_values($a), $x->histogram());
                foreach (range(0, 5) as $step) {
                    self::assertSame(self::rows($a, static fn (int $is): bool => $is === $step), $x->being($step)->rows());
                    self::assertSame(self::rows($a, static fn (int $is): bool => $is <= $step), $x->atMost($step)->rows());
                    self::assertSame(self::rows($a, static fn (int $is): bool => $is >= $step), $x->atLeast($step)->rows());
                    $mixed = $x->except($y->being($step), Levels::constant($length, 5, 4));
                    self::assertSame(
                        array_map(static fn (int $one, int $other): int => $other === $step ? 4 : $one, $a, $b),
                        self::steps($mixed),
                    );
                }
                foreach ([1, 31, 60, 300] as $different) {
                    $values = $length === 0 ? [] : array_map(static fn (): int => mt_rand(1, $different), range(1, $length));
                    $spread = [];
                    foreach ($values as $at => $value) {
                        $spread[$value][$a[$at]] = ($spread[$value][$a[$at]] ?? 0) + 1;
                    }
                    $column = Coded::fromValues($values);
                    self::assertEquals($spread, $x->spread($column));
                    self::assertEquals($spread, $column->histogramBeside($x->translated(range(0, 5))));
                }
                self::assertSame(
                    "\0".implode('', array_map(static fn (int $step): string => chr($step * 10), $a)),
                    $x->translated(array_map(static fn (int $step): int => $step * 10, range(0, 5))),
                );
            }
        }
    }

    public function test_levels_follow_from_the_values_of_a_column(): void
    {
        mt_srand(7);
        $values = array_map(static fn (): int => mt_rand(1, 700), range(1, 4000));
        $steps = [];
        foreach (range(1, 700) as $value) {
            if (mt_rand(0, 3) > 0) {
                $steps[$value] = mt_rand(0, 5);
            }
        }
        $levels = Levels::byValue(Coded::fromValues($values), $steps, 5, 3);
        self::assertSame(array_map(static fn (int $value): int => $steps[$value] ?? 3, $values), self::steps($levels));
    }

    public function test_planes_add_up_any_set(): void
    {
        mt_srand(8);
        foreach ([0, 1, 9, 400] as $length) {
            $numbers =
                $length === 0
                    ? []
                    : array_map(static fn (): int => mt_rand(0, 3) === 0 ? mt_rand(0, 2_000_000_000) : mt_rand(0, 40), range(1, $length));
            $planes = Planes::unpack(Planes::pack($length, $numbers));
            for ($round = 0; $round < 20; $round++) {
                $rows = array_values(array_filter(range(0, $length), static fn (int $row): bool => $row > 0 && mt_rand(0, 1) === 0));
                self::assertSame(
                    array_sum(array_map(static fn (int $row): int => $numbers[$row - 1], $rows)),
                    $planes->sum(Bits::ofRows($length, $rows)),
                );
            }
        }
    }

    public function test_codes_are_the_same_dense_and_sparse(): void
    {
        mt_srand(13);
        foreach ([0, 1, 50, 400] as $length) {
            foreach ([1, 2, 5, 40] as $rarity) {
                $codes = [];
                for ($row = 1; $row <= $length; $row++) {
                    if (mt_rand(1, $rarity) === 1) {
                        $codes[$row] = mt_rand(1, 90_000);
                    }
                }
                $packed = Codes::pack($codes, $length);
                $column = Codes::unpack($packed);
                self::assertSame($codes, $column->all());
                for ($row = 0; $row <= $length; $row++) {
                    self::assertSame($codes[$row] ?? 0, $column->at($row));
                }
            }
        }
        self::assertLessThan(
            60,
            strlen(Codes::pack([7 => 1, 90_000 => 2, 199_999 => 1], 200_000)),
            'what three objects carry takes no room',
        );
    }

    public function test_masks_and_sets_are_the_same(): void
    {
        mt_srand(9);
        for ($length = 0; $length < 200; $length++) {
            $rows = array_values(array_filter(range(0, $length), static fn (int $row): bool => $row > 0 && mt_rand(0, 1) === 0));
            $bits = Bits::ofRows($length, $rows);
            $mask = implode('', array_map(static fn (int $row): string => in_array($row, $rows, true) ? "\xFF" : "\0", range(0, $length)));
            self::assertSame($mask, $bits->mask());
            self::assertSame($bits->bytes, Bits::ofMask($length, strtr($mask, "\xFF", "\1"))->bytes);
        }
    }

    public function test_bytes_go_from_numbers_to_rows_and_back_whatever_the_numbering(): void
    {
        mt_srand(10);
        for ($round = 0; $round < 60; $round++) {
            $numbers = range(1, 30);
            mt_rand(0, 1) === 0 ? shuffle($numbers) : array_splice($numbers, mt_rand(0, 20), 4);
            // Two that changed places look the same from both sides.
            $numbers = $round === 0 ? [2, 1] : array_slice($numbers, 0, mt_rand(1, 30));
            $parents = array_fill_keys($numbers, 0);
            $scene = new Scene(
                new ColumnsInMemory(SceneBuilder::columns($parents, array_fill_keys($numbers, 1), array_fill_keys($numbers, 1), [], [])),
            );
            $byNumber = '';
            $byRow = '-';
            foreach (range(0, max($numbers)) as $number) {
                $byNumber .= in_array($number, $numbers, true) ? chr(65 + $number) : '-';
            }
            foreach ($numbers as $number) {
                $byRow .= chr(65 + $number);
            }
            self::assertSame($byRow, $scene->byRow($byNumber, '-'));
            self::assertSame($byNumber, $scene->byNumber($byRow, '-'));
            $some = array_values(array_filter($numbers, static fn (): bool => mt_rand(0, 1) === 0));
            $rows = array_map($scene->row(...), $some);
            sort($rows);
            sort($some);
            self::assertSame($rows, $scene->rowBits(Bits::ofRows(50, [...$some, 45]))->rows());
            self::assertSame($some, $scene->numberBits(Bits::ofRows($scene->count(), $rows))->rows());
        }
    }

    /** @param list<int> $list */
    private function assertAnswers(array $list, Coded $column): void
    {
        self::assertEquals(array_count_values($list), $column->histogram());
        $some = array_fill_keys(array_slice(array_unique($list), 0, 5), true) + [99999 => true];
        self::assertSame(self::rows($list, static fn (int $value): bool => isset($some[$value])), $column->rowsOf($some)->rows());
        $odd = Bits::ofRows(count($list), array_values(array_filter(range(0, count($list)), static fn (int $row): bool => $row % 2 === 1)));
        self::assertEquals(
            array_count_values(array_values(array_filter($list, static fn (int $at): bool => $at % 2 === 0, ARRAY_FILTER_USE_KEY))),
            $column->histogram($odd),
        );
        foreach ([0, intdiv(count($list), 2), count($list) - 1] as $at) {
            if (isset($list[$at])) {
                self::assertSame($list[$at], $column->at($at + 1));
            }
        }
    }

    /** @return list<int> */
    private static function steps(Levels $levels): array
    {
        return $levels->length === 0 ? [] : array_map($levels->at(...), range(1, $levels->length));
    }

    /**
     * @param list<int>           $list
     * @param callable(int): bool $fits
     *
     * @return list<int>
     */
    private static function rows(array $list, callable $fits): array
    {
        return array_map(static fn (int $at): int => $at + 1, array_keys(array_filter($list, $fits)));
    }
}
