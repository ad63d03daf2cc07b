<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Lighten\Choice;
use VineShelf\Lighten\Options;

final class ChoiceTest extends TestCase
{
    public function test_it_loses_hardly_more_than_the_best_that_trying_everything_finds(): void
    {
        mt_srand(40);
        $tight = 0;
        for ($round = 0; $round < 160; $round++) {
            $things = array_map(self::thing(...), range(1, mt_rand(1, 7)));
            $options = self::options($things);
            $budget = mt_rand(0, $options->cost());
            $chosen = (new Choice($options))->within($budget);
            $best = self::tried($things, $budget);
            self::assertSame($best === null, $chosen === null, "round $round");
            if ($best === null || $chosen === null) {
                continue;
            }
            self::assertLessThanOrEqual($budget, $chosen->cost, "round $round");
            [$cost, $loss] = self::sum($things, $chosen->rungs);
            self::assertSame($cost, $chosen->cost);
            self::assertEqualsWithDelta($loss, $chosen->loss, 1e-9);
            self::assertLessThanOrEqual($best * 1.02 + 1e-9, $loss, "round $round");
            self::assertLessThanOrEqual($best + 1e-9, $chosen->bound, "round $round");
            $tight += $best > 0 ? 1 : 0;
        }
        self::assertGreaterThan(80, $tight);
    }

    public function test_of_many_it_comes_near_what_no_choice_can_beat_and_never_over_the_budget(): void
    {
        mt_srand(41);
        foreach ([200, 3000, 20_000] as $count) {
            $things = array_map(self::thing(...), range(1, $count));
            $options = self::options($things);
            foreach ([0.9, 0.5, 0.2, 0.05] as $share) {
                $budget = max($options->least(), (int) ($options->cost() * $share));
                $chosen = (new Choice($options))->within($budget);
                self::assertNotNull($chosen);
                self::assertLessThanOrEqual($budget, $chosen->cost);
                [$cost, $loss] = self::sum($things, $chosen->rungs);
                self::assertSame($cost, $chosen->cost);
                self::assertEqualsWithDelta($loss, $chosen->loss, 1e-6);
                self::assertLessThanOrEqual($chosen->bound * 1.03, $loss, "$count things, $share");
            }
        }
    }

    public function test_what_costs_nothing_goes_first_and_the_largest_of_it(): void
    {
        $options = new Options;
        $options->add(500, [0 => [0, 0.0]]);
        $options->add(900, [1 => [12, 0.0], 0 => [0, 0.0]]);
        $options->add(700, [0 => [0, 0.2]]);
        self::assertSame([1 => 0], (new Choice($options))->within(1200)?->rungs);
        self::assertSame([0 => 0, 1 => 0], (new Choice($options))->within(700)?->rungs);
        self::assertSame([], (new Choice($options))->within(2100)?->rungs);
        self::assertSame([0 => 0, 1 => 0, 2 => 0], (new Choice($options))->within(0)?->rungs);
    }

    /** @return array{int, array<int, array{int, float}>} what it costs, and what it can be lowered to */
    private static function thing(): array
    {
        $cost = mt_rand(1, 4) === 1 ? mt_rand(1, 40) : mt_rand(20, 5000);
        $lower = [];
        foreach (Options::RUNGS as $rung) {
            if (mt_rand(0, 3) > 0) {
                $loss = mt_rand(0, 4) === 0 ? 0.0 : mt_rand(1, 1000) / 10_000;
                $lower[$rung] = [$rung === 0 ? 0 : ($rung === 1 ? min($cost, 12) : mt_rand(1, $cost)), $loss];
            }
        }

        return [$cost, $lower];
    }

    /** @param list<array{int, array<int, array{int, float}>}> $things */
    private static function options(array $things): Options
    {
        $options = new Options;
        foreach ($things as [$cost, $lower]) {
            $options->add($cost, $lower);
        }

        return $options;
    }

    /**
     * @param list<array{int, array<int, array{int, float}>}> $things
     * @param array<int, int>                                 $rungs
     *
     * @return array{int, float}
     */
    private static function sum(array $things, array $rungs): array
    {
        [$costs, $losses] = [0, 0.0];
        foreach ($things as $at => [$cost, $lower]) {
            $costs += isset($rungs[$at]) ? $lower[$rungs[$at]][0] : $cost;
            $losses += isset($rungs[$at]) ? $lower[$rungs[$at]][1] : 0.0;
        }

        return [$costs, $losses];
    }

    /**
     * The least that is lost within a budget, by trying all.
     *
     * @param list<array{int, array<int, array{int, float}>}> $things
     */
    private static function tried(array $things, int $budget): ?float
    {
        if ($things === []) {
            return $budget < 0 ? null : 0.0;
        }
        [$cost, $lower] = array_shift($things);
        $best = self::tried($things, $budget - $cost);
        foreach ($lower as [$there, $loss]) {
            $rest = self::tried($things, $budget - $there);
            $best = $rest === null ? $best : min($best ?? INF, $rest + $loss);
        }

        return $best;
    }
}
