<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Lighten\LayersChoice;

final class LayersChoiceTest extends TestCase
{
    public function test_of_a_few_layers_it_loses_hardly_more_than_the_best_that_trying_everything_finds(): void
    {
        mt_srand(42);
        $tight = $impossible = 0;
        for ($round = 0; $round < 150; $round++) {
            [$parents, $costs, $losses] = self::grown(mt_rand(1, 6));
            $whole = array_sum(array_column($costs, 5));
            $budget = mt_rand(0, $whole);
            $found = (new LayersChoice($parents, $costs, $losses))->within($budget);
            $best = self::tried($parents, $costs, $losses, $budget);
            self::assertSame($best === null, $found === null, "round $round");
            if ($found === null || $best === null) {
                $impossible++;

                continue;
            }
            [$cost, $loss] = self::sum($parents, $costs, $losses, $found);
            self::assertLessThanOrEqual($budget, $cost, "round $round");
            self::assertLessThanOrEqual($best * 1.05 + 1e-9, $loss, "round $round");
            $tight += $best > 0 ? 1 : 0;
        }
        self::assertGreaterThan(60, $tight);
        self::assertGreaterThan(3, $impossible);
    }

    public function test_of_many_layers_it_never_goes_over_and_comes_near_what_no_price_can_beat(): void
    {
        mt_srand(43);
        foreach ([60, 400] as $count) {
            [$parents, $costs, $losses] = self::grown($count);
            // Nothing that must stay, so that any budget can be kept.
            $losses = array_map(
                static fn (array $each): array => array_map(static fn (float $loss): float => min($loss, 0.01), $each),
                $losses,
            );
            $whole = array_sum(array_column($costs, 5));
            $before = 0.0;
            foreach ([0.9, 0.6, 0.3, 0.1] as $share) {
                $found = (new LayersChoice($parents, $costs, $losses))->within((int) ($whole * $share));
                self::assertNotNull($found);
                [$cost, $loss] = self::sum($parents, $costs, $losses, $found);
                self::assertLessThanOrEqual($whole * $share, $cost);
                self::assertGreaterThanOrEqual($before, $loss);
                self::assertGreaterThan($whole * $share * 0.9, $cost, 'what may be drawn is drawn');
                $before = $loss;
            }
        }
    }

    /** @return array{array<int, int>, array<int, array<int, int>>, array<int, array<int, float>>} */
    private static function grown(int $count): array
    {
        $parents = $costs = $losses = [];
        for ($layer = 1; $layer <= $count; $layer++) {
            $parents[$layer] = mt_rand(0, 2) === 0 ? 0 : mt_rand(0, $layer - 1);
            $cost = mt_rand(0, 5) === 0 ? 0 : mt_rand(10, 4000);
            $loss = 0.0;
            $stays = mt_rand(0, 6) === 0 ? mt_rand(0, 3) : -1;
            foreach (LayersChoice::CAPS as $at => $cap) {
                $costs[$layer][$cap] = $cost;
                $losses[$layer][$cap] = $at > $stays && $stays >= 0 ? INF : $loss;
                $cost = $at === 2 ? 0 : intdiv($cost * mt_rand(0, 9), 10);
                $loss += mt_rand(0, 4) === 0 ? 0.0 : mt_rand(1, 1000) / 1e5;
            }
        }

        return [$parents, $costs, $losses];
    }

    /**
     * @param array<int, int>               $parents
     * @param array<int, array<int, int>>   $costs
     * @param array<int, array<int, float>> $losses
     * @param array<int, int>               $set
     *
     * @return array{int, float}
     */
    private static function sum(array $parents, array $costs, array $losses, array $set): array
    {
        [$cost, $loss] = [0, 0.0];
        foreach ($parents as $layer => $_) {
            $cap = 5;
            for ($at = $layer; $at !== 0; $at = $parents[$at]) {
                $cap = min($cap, $set[$at] ?? 5);
            }
            $cost += $costs[$layer][$cap];
            $loss += $losses[$layer][$cap];
        }

        return [$cost, $loss];
    }

    /**
     * @param array<int, int>               $parents
     * @param array<int, array<int, int>>   $costs
     * @param array<int, array<int, float>> $losses
     */
    private static function tried(array $parents, array $costs, array $losses, int $budget): ?float
    {
        $best = null;
        $count = count($parents);
        for ($number = 0; $number < 4 ** $count; $number++) {
            $set = [];
            for ($layer = 1, $rest = $number; $layer <= $count; $layer++, $rest >>= 2) {
                $set[$layer] = LayersChoice::CAPS[$rest & 3];
            }
            [$cost, $loss] = self::sum($parents, $costs, $losses, $set);
            if ($cost <= $budget && $loss < INF && ($best === null || $loss < $best)) {
                $best = $loss;
            }
        }

        return $best;
    }
}
