<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Copies;
use VineShelf\Naming\Numbered;

final class CopiesTest extends TestCase
{
    /** @return iterable<string, array{Copies, int, array{float, float, float}, array{float, float, float}}> steps, which, from, to */
    public static function worked(): iterable
    {
        // Worked by hand; what is copied has its middle at (2, 1).
        yield 'a row' => [new Copies(3, [1.5, 0.0, -0.25]), 3, [2.0, 1.0, 0.0], [6.5, 1.0, -0.75]];
        yield 'a quarter about its middle' => [new Copies(4, [0.0, 0.0, 0.0], 90.0), 1, [3.0, 1.0, 5.0], [2.0, 2.0, 5.0]];
        yield 'half way round a circle of four' => [Copies::circle(3, [0.0, 0.0]), 2, [2.0, 1.0, 4.0], [-2.0, -1.0, 4.0]];
        yield 'a quarter of a circle of four' => [Copies::circle(3, [0.0, 0.0]), 1, [2.0, 1.0, 4.0], [-1.0, 2.0, 4.0]];
        yield 'a circle that rises' => [Copies::circle(3, [0.0, 0.0], 0.5), 2, [2.0, 1.0, 4.0], [-2.0, -1.0, 5.0]];
        yield 'around another point' => [Copies::circle(3, [2.0, 0.0]), 3, [2.0, 1.0, 0.0], [3.0, 0.0, 0.0]];
        yield 'a stair that winds' => [new Copies(9, [0.0, 0.0, 0.18], 30.0, [0.0, 1.0]), 3, [2.0, 1.0, 0.0], [0.0, 3.0, 0.54]];
        yield 'turned the other way' => [new Copies(9, [0.0, 0.0, 0.0], -90.0, [0.0, 0.0]), 1, [2.0, 1.0, 0.0], [1.0, -2.0, 0.0]];
        yield 'all round and on' => [new Copies(9, [0.0, 0.0, 0.0], 450.0, [0.0, 0.0]), 1, [2.0, 1.0, 0.0], [-1.0, 2.0, 0.0]];
    }

    /**
     * @param array{float, float, float} $from
     * @param array{float, float, float} $to
     */
    #[DataProvider('worked')]
    public function test_a_copy_stands_where_it_was_worked_out_by_hand(Copies $copies, int $index, array $from, array $to): void
    {
        $m = $copies->step($index, [2.0, 1.0]);
        foreach ([0, 4, 8] as $axis => $at) {
            $is = $m[$at] * $from[0] + $m[$at + 1] * $from[1] + $m[$at + 2] * $from[2] + $m[$at + 3];
            self::assertEqualsWithDelta($to[$axis], $is, 1e-12);
        }
    }

    public function test_copies_in_a_circle_stay_on_it_and_keep_their_size(): void
    {
        mt_srand(5);
        for ($round = 0; $round < 200; $round++) {
            $around = [mt_rand(-500000, 500000) / 7, mt_rand(-500000, 500000) / 7];
            $count = mt_rand(1, 40);
            $copies = Copies::circle($count, $around);
            $own = Affine::compose(
                [mt_rand(-99, 99) / 3, mt_rand(-99, 99) / 3, 1.0],
                [mt_rand(1, 9), mt_rand(1, 9), mt_rand(1, 9), 3],
                [-2.0, 0.5, 3.0],
            );
            $before = Affine::product($copies->step($count, [0.0, 0.0]), $own);
            self::assertEqualsWithDelta(
                hypot($own[3] - $around[0], $own[7] - $around[1]),
                hypot($before[3] - $around[0], $before[7] - $around[1]),
                1e-9 * max(1, hypot(...$around)),
            );
            // One step beyond the last is where it began.
            $again = Affine::product($copies->step(1, [0.0, 0.0]), $before);
            foreach ($own as $at => $value) {
                self::assertEqualsWithDelta($value, $again[$at], 1e-6, "entry $at");
            }
            self::assertEqualsWithDelta(self::volume($own), self::volume($before), 1e-9);
        }
    }

    /** @param list<float> $m */
    private static function volume(array $m): float
    {
        return $m[0] * ($m[5] * $m[10] - $m[6] * $m[9]) -
            $m[1] * ($m[4] * $m[10] - $m[6] * $m[8]) +
            $m[2] * ($m[4] * $m[9] - $m[5] * $m[8]);
    }

    /** @return iterable<string, array{list<string>, string, list<string>}> */
    public static function names(): iterable
    {
        yield 'no number' => [['Bench'], 'Bench', ['Bench 2', 'Bench 3']];
        yield 'a number' => [['Bench', 'Bench 2'], 'Bench', ['Bench 3', 'Bench 4']];
        yield 'digits' => [['Seat_007', 'Seat_019'], 'Seat_007', ['Seat_020', 'Seat_021']];
        yield 'more digits' => [['Seat_9'], 'Seat_9', ['Seat_10', 'Seat_11']];
        yield 'another case' => [['bench 7'], 'Bench', ['Bench 8', 'Bench 9']];
        yield 'nothing' => [[''], '', ['', '']];
        yield 'only digits' => [['12'], '12', ['12 2', '12 3']];
        yield 'a long number' => [['A12345678901234567890'], 'A12345678901234567890', ['A12345678901234567891']];
        yield 'letters of all kinds' => [['Bänke 1'], 'Bänke 1', ['Bänke 2']];
    }

    /**
     * @param list<string> $taken
     * @param list<string> $expected
     */
    #[DataProvider('names')]
    public function test_names_go_on_counting(array $taken, string $name, array $expected): void
    {
        $numbered = new Numbered($taken);
        self::assertSame($expected, array_map(static fn (): string => $numbered->next($name), $expected));
    }
}
