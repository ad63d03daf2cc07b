<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\RandomForest;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;

final class PickTest extends TestCase
{
    public function test_a_pick_keeps_its_objects_once_each_in_the_order_of_picking(): void
    {
        $pick = Pick::of([5, 3, 5])
            ->with([9, 3])
            ->without([5]);
        self::assertSame([3, 9], $pick->numbers());
        self::assertSame(
            [9, 3, 7],
            Pick::of([9, 3])
                ->with([7, 9])
                ->numbers(),
        );
        self::assertSame([9, 3, 7], Pick::unpack(Pick::of([9, 3, 7])->pack())->numbers());
        self::assertSame([[], ''], [Pick::unpack('')->numbers(), Pick::of()->pack()]);
        self::assertSame(0, Pick::unpack("\x78broken")->count());
    }

    public function test_few_and_many_behave_like_plain_sets(): void
    {
        mt_srand(61);
        for ($round = 0; $round < 12; $round++) {
            $most = [30, 5000, 40_000][$round % 3];
            $some = static function () use ($most): array {
                $numbers = array_map(static fn (): int => mt_rand(1, $most), range(1, mt_rand(1, (int) ($most / 3))));

                return array_values(array_unique($numbers));
            };
            $plain = $some();
            $pick = Pick::of($plain);
            for ($step = 0; $step < 8; $step++) {
                $these = $some();
                $sorted = $these;
                sort($sorted);
                $bits = Bits::ofRows($sorted[count($sorted) - 1], $sorted);
                [$plain, $pick] = match (mt_rand(0, 4)) {
                    0 => [array_unique([...$plain, ...$these]), $pick->with($these)],
                    1 => [array_diff($plain, $these), $pick->without($these)],
                    2 => [array_unique([...$plain, ...$these]), $pick->withBits($bits)],
                    3 => [array_diff($plain, $these), $pick->withoutBits($bits)],
                    default => [$these, Pick::ofBits($bits)],
                };
                $pick = mt_rand(0, 1) === 0 ? $pick : Pick::unpack($pick->pack());
                sort($plain);
                $numbers = $pick->numbers();
                sort($numbers);
                self::assertSame($plain, $numbers);
                self::assertSame(count($plain), $pick->count());
                self::assertSame($plain, $pick->bits()->rows());
                foreach ([0, -1, 1, $most, $most + 1, 10 * $most, $plain[0] ?? 1] as $number) {
                    self::assertSame(in_array($number, $plain, true), $pick->has($number), "object $number");
                }
            }
        }
    }

    public function test_rows_are_those_that_the_scene_still_has_and_with_what_they_hold(): void
    {
        mt_srand(62);
        for ($round = 0; $round < 40; $round++) {
            $plain = $round % 2 === 0;
            $forest = RandomForest::grow(mt_rand(2, 60));
            if ($plain) {
                // As after taking in one file: numbers are rows.
                $forest->parents = array_combine(
                    range(1, count($forest->parents)),
                    array_map(
                        static fn (int $at): int => $at === 0 || mt_rand(0, 3) === 0 ? 0 : $at,
                        range(0, count($forest->parents) - 1),
                    ),
                );
                $forest->layerOf = array_fill_keys(array_keys($forest->parents), 1);
                $forest->kinds = array_fill_keys(array_keys($forest->parents), 0);
                $forest->locks = $forest->triangles = [];
            }
            $scene = $forest->scene();
            self::assertSame($plain || array_keys($forest->parents) === range(1, count($forest->parents)), $scene->isPlain());
            $picked = array_values(array_filter(range(1, 200), static fn (): bool => mt_rand(0, 3) === 0));
            $rows = array_values(array_filter(array_map($scene->row(...), $picked)));
            sort($rows);
            $few = Pick::of($picked);
            $many = Pick::of([...$picked, ...range(5000, 9000)]);
            foreach ([$few, $many] as $pick) {
                self::assertSame($rows, $pick->rows($scene)->rows());
                $held = [];
                foreach ($rows as $row) {
                    array_push($held, ...range($row, $scene->end($row)));
                }
                $held = array_values(array_unique($held));
                sort($held);
                self::assertSame($held, $pick->withHeld($scene)->rows());
                $triangles = array_sum(array_map(static fn (int $row): int => $scene->triangles($row, $row), $held));
                self::assertSame($triangles, $scene->trianglesOf($pick->withHeld($scene)));
            }
            $numbers = array_values(array_filter($picked, static fn (int $number): bool => $scene->row($number) > 0));
            self::assertSame($numbers, Pick::ofBits($scene->numberBits($few->rows($scene)))->numbers());
        }
    }
}
