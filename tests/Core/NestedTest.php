<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Lighten\Chosen;
use VineShelf\Lighten\Nested;
use VineShelf\Lighten\Options;
use VineShelf\Scene\Bits;

/** Objects in objects, against following every choice down the tree. */
final class NestedTest extends TestCase
{
    /** @var array<int, int> by row, from 1 */
    private array $parents = [];

    /** @var array<int, array<int, array{int, float}>> cost and loss by rung that it can be lowered to, and at 5 as it stands, by row */
    private array $things = [];

    /** @var array<int, int> cost by row of what stays */
    private array $fixed = [];

    public function test_of_few_it_loses_hardly_more_than_the_best_that_trying_everything_finds(): void
    {
        mt_srand(50);
        $held = 0;
        for ($round = 0; $round < 150; $round++) {
            $nested = $this->grow(mt_rand(1, 6), $round % 3 === 0);
            $whole = $this->cost([]);
            $budget = mt_rand(0, $whole);
            $best = null;
            $least = $whole;
            foreach ($this->everything() as $rungs) {
                $cost = $this->cost($rungs);
                $least = $this->loss($rungs) < INF ? min($least, $cost) : $least;
                if ($cost <= $budget && $this->loss($rungs) < INF) {
                    $best = min($best ?? INF, $this->loss($rungs));
                }
            }
            self::assertSame($least, $nested->least(), "round $round");
            $chosen = $nested->within($budget);
            self::assertSame($best === null, $chosen === null, "round $round");
            if ($chosen !== null && $best !== null) {
                $loss = $this->assertComesTo($chosen, $budget);
                self::assertLessThanOrEqual($best * 1.05 + 1e-9, $loss, "round $round");
                $held += count($this->parents) > count(array_filter($this->parents, static fn (int $above): bool => $above === 0)) ? 1 : 0;
            }
        }
        self::assertGreaterThan(60, $held, 'objects in objects');
    }

    public function test_of_many_it_comes_near_what_no_choice_can_beat_and_never_over_the_budget(): void
    {
        mt_srand(51);
        foreach ([60, 400, 1500] as $count) {
            $nested = $this->grow($count, $count === 400);
            foreach ([0.95, 0.6, 0.3, 0.1] as $share) {
                $budget = max($nested->least(), (int) ($share * $this->cost([])));
                $chosen = $nested->within($budget);
                self::assertNotNull($chosen);
                $loss = $this->assertComesTo($chosen, $budget);
                $bound = 0.0;
                for ($price = 1e-9; $price < 1e-2; $price *= 1.5) {
                    $bound = max($bound, $this->bound($price) - $price * $budget);
                }
                // Between the bound and the best is what a single object may show.
                self::assertLessThanOrEqual($bound * 1.03 + 0.001, $loss, "$count, $share");
                $guess = $nested->within($budget, true);
                self::assertNotNull($guess);
                $this->assertComesTo($guess, $budget);
            }
            self::assertNull($nested->within($nested->least() - 1));
        }
    }

    /** What is chosen is what it says, fits, and leaves alone what has to stay. @return float what is lost */
    private function assertComesTo(Chosen $chosen, int $budget): float
    {
        $rungs = [];
        $rows = array_keys($this->things);
        foreach ($chosen->rungs as $at => $rung) {
            $rungs[$rows[$at]] = $rung;
        }
        self::assertLessThanOrEqual($budget, $this->cost($rungs));
        self::assertSame($this->cost($rungs), $chosen->cost);
        self::assertEqualsWithDelta($this->loss($rungs), $chosen->loss, 1e-9);
        foreach ($this->fixed as $row => $_) {
            self::assertSame(5, $this->inEffect($rungs, $row), 'it stays');
        }

        return $this->loss($rungs);
    }

    /** A forest in the order of its rows. */
    private function grow(int $count, bool $mayStay): Nested
    {
        $this->parents = $this->things = $this->fixed = [];
        $path = [0];
        $hides = mt_rand(0, 3) > 0;
        for ($row = 1; $row <= $count; $row++) {
            $path = array_slice($path, 0, mt_rand(1, min(5, count($path))));
            $this->parents[$row] = (int) end($path);
            $path[] = $row;
            if ($mayStay && mt_rand(0, 5) === 0) {
                $this->fixed[$row] = mt_rand(1, 99);

                continue;
            }
            $cost = mt_rand(1, 4) === 1 ? mt_rand(1, 10_000) : mt_rand(1, 300);
            $shows = mt_rand(0, 2) === 0 ? 0.0 : mt_rand(1, 1000) / 1e6;
            $this->things[$row] = [5 => [$cost, 0.0]] + ($hides ? [0 => [0, $shows]] : []);
            // Some are drawn as less already.
            $now = mt_rand(1, 5);
            $now > 1 && ($this->things[$row][1] = [12, $shows * 0.6]);
            $now > 3 && ($this->things[$row][3] = [intdiv($cost, mt_rand(1, 3)), $shows * 0.1]);
        }
        $options = new Options;
        $ends = range(0, $count);
        for ($row = $count; $row > 0; $row--) {
            $ends[$this->parents[$row]] = max($ends[$this->parents[$row]], $ends[$row]);
        }
        foreach ($this->things as $lower) {
            $options->add($lower[5][0], array_diff_key($lower, [5 => true]));
        }

        return new Nested($options, array_keys($this->things), pack('V*', ...$ends), Bits::ofRows($count, array_keys($this->fixed)));
    }

    /** @return \Generator<int, array<int, int>> every way to set rungs */
    private function everything(int $at = 0): \Generator
    {
        $rows = array_keys($this->things);
        if ($at === count($rows)) {
            yield [];

            return;
        }
        foreach ($this->everything($at + 1) as $rest) {
            foreach ([5, 3, 1, 0] as $rung) {
                $rungs = $rung === 5 ? $rest : [$rows[$at] => $rung] + $rest;
                foreach ($this->fixed as $row => $_) {
                    if ($this->inEffect($rungs, $row) < 5) {
                        continue 2;
                    }
                }
                yield $rungs;
            }
        }
    }

    /** @param array<int, int> $rungs */
    private function inEffect(array $rungs, int $row): int
    {
        for ($rung = 5; $row > 0; $row = $this->parents[$row]) {
            $rung = min($rung, $rungs[$row] ?? 5);
        }

        return $rung;
    }

    /** @return array{int, float} cost and loss of a thing at a rung: what is drawn as that or less stays as it is */
    private function at(int $row, int $rung): array
    {
        return $this->things[$row][$rung] ?? ($rung === 0 ? [0, INF] : $this->things[$row][5]);
    }

    /** @param array<int, int> $rungs */
    private function cost(array $rungs): int
    {
        return (int) array_sum(
            array_map(fn (int $row): int => $this->at($row, $this->inEffect($rungs, $row))[0], array_keys($this->things)),
        );
    }

    /** @param array<int, int> $rungs */
    private function loss(array $rungs): float
    {
        return array_sum(array_map(fn (int $row): float => $this->at($row, $this->inEffect($rungs, $row))[1], array_keys($this->things)));
    }

    /** The least of what is lost and of what triangles cost at a price, over all choices; less what the budget costs, none loses less. */
    private function bound(float $price): float
    {
        $below = [];
        $whole = 0.0;
        for ($row = count($this->parents); $row > 0; $row--) {
            $best = INF;
            foreach ([0, 1, 3, 5] as $cap) {
                [$cost, $loss] = isset($this->things[$row]) ? $this->at($row, $cap) : [0, $cap < 5 ? INF : 0.0];
                $best = min($best, $loss + $price * $cost + ($below[$row][$cap] ?? 0.0));
                $here[$cap] = $best;
            }
            foreach ($here as $cap => $value) {
                $below[$this->parents[$row]][$cap] = ($below[$this->parents[$row]][$cap] ?? 0.0) + $value;
            }
        }

        return $below[0][5] ?? $whole;
    }
}
