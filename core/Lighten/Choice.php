<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

/**
 * The choice of rungs that fits a budget and loses least: a knapsack problem with several choices each. What each thing can be lowered to
 * is thinned out to steps that lose ever more per triangle (Sinha and Zoltners, "The multiple-choice knapsack problem", 1979), and the
 * cheapest steps of all are taken until all fit. What stands near the last of them, or all where there are few, is then chosen anew,
 * exactly but for a small part ({@see Few}).
 */
final class Choice
{
    /** Things around the last step that are chosen anew. */
    private const FEW = 160;

    /** Steps that are sorted at once, and parts that more of them are divided into. */
    private const SORTED = 20_000;

    private const PARTS = 62;

    /** @var list<int> the things that steps are of */
    private array $things = [];

    /** @var list<int> */
    private array $rungs = [];

    /** @var list<int> triangles saved */
    private array $saves = [];

    /** @var list<float> lost for each triangle */
    private array $ratios = [];

    public function __construct(private readonly Options $options) {}

    /**
     * @param bool $isGuess whether the cheapest steps will do
     *
     * @return Chosen|null null when they cannot fit
     */
    public function within(int $budget, bool $isGuess = false): ?Chosen
    {
        $excess = $this->options->cost() - $budget;
        if ($excess <= 0) {
            return new Chosen([], $this->options->cost(), 0.0, 0.0);
        }
        if ($this->options->least() > $budget) {
            return null;
        }
        $this->steps();
        $taken = $lost = [];
        $bound = 0.0;
        $last = 0;
        $order = $this->cheapest($excess);
        foreach ($order as $at => $step) {
            $last = $at;
            $bound += $this->ratios[$step] * min($excess, $this->saves[$step]);
            $taken[$this->things[$step]] = $this->rungs[$step];
            $excess -= $this->saves[$step];
            if ($excess <= 0) {
                break;
            }
        }
        $few = [];
        for (
            $near = 0, $count = count($order);
            ! $isGuess && count($few) < self::FEW && ($last - $near >= 0 || $last + $near < $count);
            $near++
        ) {
            foreach ([$last - $near, $last + $near] as $at) {
                isset($order[$at]) && ($few[$this->things[$order[$at]]] = true);
            }
        }

        return $this->finished($taken, array_keys($few), $budget, $bound);
    }

    /**
     * @param array<int, int> $taken rung by thing
     * @param list<int>       $few   things that may be chosen anew
     */
    private function finished(array $taken, array $few, int $budget, float $bound): Chosen
    {
        $options = $this->options;
        [$cost, $loss] = $this->sum($taken);
        $before = $few === [] ? [0, 0.0] : $this->sum(array_intersect_key($taken, array_flip($few)), $few);
        $anew = (new Few($options, $few))->within($budget - $cost + $before[0], $before[1]);
        if ($anew !== null) {
            $taken = $anew + array_diff_key($taken, array_flip($few));
            [$cost, $loss] = $this->sum($taken);
        }
        ksort($taken);

        return new Chosen($taken, $cost, $loss, min($bound, $loss));
    }

    /**
     * @param array<int, int> $taken rung by thing
     * @param list<int>|null  $of    things; all of them when not given
     *
     * @return array{int, float} cost and loss
     */
    private function sum(array $taken, ?array $of = null): array
    {
        $options = $this->options;
        $cost = $of === null ? $options->cost() : array_sum(array_map(static fn (int $thing): int => $options->costs[$thing], $of));
        $loss = 0.0;
        [$costs, $costsAt, $lossesAt] = [$options->costs, $options->costsAt, $options->lossesAt];
        foreach ($taken as $thing => $rung) {
            $cost += $costsAt[$rung][$thing] - $costs[$thing];
            $loss += $lossesAt[$rung][$thing];
        }

        return [$cost, $loss];
    }

    /** From each thing as it stands down, always to where least is lost for each triangle that is saved. */
    private function steps(): void
    {
        [$costs, $costsAt, $lossesAt] = [$this->options->costs, $this->options->costsAt, $this->options->lossesAt];
        $things = $rungs = $saves = $ratios = [];
        for ($thing = 0, $count = count($costs); $thing < $count; $thing++) {
            $cost = $costs[$thing];
            $loss = 0.0;
            do {
                $best = -1;
                $bestRatio = INF;
                foreach (Options::RUNGS as $rung) {
                    $there = $lossesAt[$rung][$thing];
                    $saved = $cost - $costsAt[$rung][$thing];
                    if ($there < 0 || $saved <= 0) {
                        continue;
                    }
                    $ratio = ($there > $loss ? $there - $loss : 0.0) / $saved;
                    // Of equals the one that saves most: the steps are fewer.
                    if ($ratio < $bestRatio || ($ratio === $bestRatio && $costsAt[$rung][$thing] < $costsAt[$best][$thing])) {
                        $best = $rung;
                        $bestRatio = $ratio;
                    }
                }
                if ($best >= 0) {
                    $things[] = $thing;
                    $rungs[] = $best;
                    $saves[] = $cost - $costsAt[$best][$thing];
                    $ratios[] = $bestRatio;
                    $cost = $costsAt[$best][$thing];
                    $loss = max($loss, $lossesAt[$best][$thing]);
                }
            } while ($best > 0);
        }
        [$this->things, $this->rungs, $this->saves, $this->ratios] = [$things, $rungs, $saves, $ratios];
    }

    /**
     * The steps that lose least for each triangle, as far as they are needed, and some beyond. What costs nothing comes first, the largest
     * before all, so that as few things as possible are touched. Only what is near the last that is needed is sorted.
     *
     * @return list<int>
     */
    private function cheapest(int $excess): array
    {
        $saves = $this->saves;
        $free = $others = [];
        $saved = 0;
        foreach ($this->ratios as $step => $ratio) {
            if ($ratio <= 0.0) {
                $free[$step] = $saves[$step];
                $saved += $saves[$step];
            } else {
                $others[$step] = $ratio;
            }
        }
        if ($saved >= $excess) {
            arsort($free);
        }
        $order = array_keys($free);
        if ($saved >= $excess && count($order) > self::FEW) {
            return $order;
        }
        while (count($others) > self::SORTED) {
            $some = self::sample($others);
            [$low, $high] = [$some[0], $some[count($some) - 1]];
            // Where among them the last is that is needed.
            $sums = array_fill(0, count($some) + 1, 0);
            $places = [];
            foreach ($others as $step => $ratio) {
                $place = 0;
                for ($from = 0, $to = count($some); $from < $to; $place = $from) {
                    $middle = ($from + $to) >> 1;
                    $some[$middle] < $ratio ? ($from = $middle + 1) : ($to = $middle);
                }
                $places[$step] = $place;
                $sums[$place] += $saves[$step];
            }
            for ($last = 0; $last < count($some) && $saved + $sums[$last] < $excess; $last++) {
                $saved += $sums[$last];
            }
            // The part before and the part behind stay, since what is needed last may stand at an end.
            $kept = [];
            foreach ($places as $step => $place) {
                if ($place < $last - 1) {
                    $order[] = $step;
                } elseif ($place <= $last + 1) {
                    $kept[$step] = $others[$step];
                }
            }
            $last > 0 && ($saved -= $sums[$last - 1]);
            if ($low === $high || count($kept) === count($others)) {
                break;
            }
            $others = $kept;
        }
        asort($others);

        return [...$order, ...array_keys($others)];
    }

    /**
     * @param array<int, float> $ratios
     *
     * @return list<float> some of them, each once, ascending
     */
    private static function sample(array $ratios): array
    {
        $some = [];
        $steps = array_keys($ratios);
        for ($at = 0, $count = count($steps); $at < $count; $at += intdiv($count, self::PARTS)) {
            $some[] = $ratios[$steps[$at]];
        }
        sort($some);

        return array_values(array_unique($some));
    }
}
