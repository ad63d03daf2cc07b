<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

/**
 * The best choice for a few things: what is lost is counted in small parts, and for each sum of parts the least cost that there is to be
 * had is worked out (the approximation scheme of Ibarra and Kim, "Fast approximation algorithms for the knapsack and sum of subset
 * problems", 1975). No more than {@see PART} of what is lost otherwise is given away.
 */
final readonly class Few
{
    private const PART = 0.01;

    /** Rounds in which what is lost comes down, and the parts with it. */
    private const ROUNDS = 6;

    /** Steps of sums times things that there is time for. */
    private const WORK = 3_000_000;

    /** @param list<int> $things that may be chosen anew */
    public function __construct(private Options $options, private array $things) {}

    /**
     * @param int   $budget triangles for these things
     * @param float $known  what some choice that fits loses
     *
     * @return array<int, int>|null rung by thing, of what is lowered; null when none is better
     */
    public function within(int $budget, float $known): ?array
    {
        $best = null;
        for ($round = 0; $round < self::ROUNDS && $known > 0 && $this->things !== []; $round++) {
            $found = $this->once($budget, $known);
            $loss = 0.0;
            foreach ($found ?? [] as $thing => $rung) {
                $loss += $this->options->lossesAt[$rung][$thing];
            }
            if ($found === null || $loss >= $known) {
                break;
            }
            $best = $found;
            $isNear = $loss > $known / 2;
            $known = $loss;
            if ($isNear) {
                break;
            }
        }

        return $best;
    }

    /** @return array<int, int>|null */
    private function once(int $budget, float $known): ?array
    {
        $count = max(1, count($this->things));
        $most = (int) min($count / self::PART, max(50, self::WORK / $count));
        $part = $known / $most;
        $costs = [0];
        $picks = [];
        foreach ($this->things as $thing) {
            [$costs, $picks[]] = $this->with($thing, $costs, $part, $most);
        }
        foreach ($costs as $sum => $cost) {
            if ($cost <= $budget) {
                return $this->traced($picks, $sum, $part);
            }
        }

        return null;
    }

    /**
     * @param list<int> $costs least cost of the things before, by parts lost; {@see PHP_INT_MAX} where there is none
     *
     * @return array{list<int>, string} the same with one more, and the rung that it is on, by parts lost; 9 as it stands
     */
    private function with(int $thing, array $costs, float $part, int $most): array
    {
        $here = [[9, 0, $this->options->costs[$thing]]];
        foreach (Options::RUNGS as $rung) {
            $loss = $this->options->lossesAt[$rung][$thing];
            if ($loss >= 0 && $this->options->costsAt[$rung][$thing] < $this->options->costs[$thing]) {
                $here[] = [$rung, (int) ($loss / $part), $this->options->costsAt[$rung][$thing]];
            }
        }
        $length = min($most, count($costs) - 1 + max(array_column($here, 1))) + 1;
        $next = array_fill(0, $length, PHP_INT_MAX);
        $picks = str_repeat('9', $length);
        foreach ($here as [$rung, $parts, $cost]) {
            $digit = (string) $rung;
            for ($sum = $parts, $before = 0, $end = min($length, count($costs) + $parts); $sum < $end; $sum++, $before++) {
                $there = $costs[$before];
                if ($there !== PHP_INT_MAX && $there + $cost < $next[$sum]) {
                    $next[$sum] = $there + $cost;
                    $picks[$sum] = $digit;
                }
            }
        }

        return [$next, $picks];
    }

    /**
     * @param list<string> $picks by thing
     *
     * @return array<int, int>
     */
    private function traced(array $picks, int $sum, float $part): array
    {
        $rungs = [];
        for ($at = count($picks) - 1; $at >= 0; $at--) {
            $rung = (int) $picks[$at][$sum];
            if ($rung !== 9) {
                $thing = $this->things[$at];
                $rungs[$thing] = $rung;
                $sum -= (int) ($this->options->lossesAt[$rung][$thing] / $part);
            }
        }

        return $rungs;
    }
}
