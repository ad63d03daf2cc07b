<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/**
 * The choice where objects hold others: a rung of an object holds down all that is in it as well. A price for a triangle is sought at which
 * all fit, and what it is worth to hold down at that price is decided from the innermost objects outwards; whatever is not held down so is
 * then chosen anew, each for itself ({@see Choice}). Few objects are chosen as few layers are ({@see LayersChoice}).
 */
final class Nested
{
    private const FEW = 40;

    /** Rounds in which the price is sought, of a guess and otherwise; each halves how many times it may be off. */
    private const ROUNDS = [6, 18];

    /** Prices for a triangle between which one is sought: parts of the picture. */
    private const PRICES = [1e-13, 10.0];

    /** @var array<int, int> the next place above that holds a place, -1 for none */
    private array $above = [];

    /** @var array<int, int> by place of what holds others: the last place in it */
    private array $holds = [];

    /** @var array<int, array<int, int>> triangles by what is let through at most, from least to most */
    private array $costs = [0 => [], 1 => [], 3 => [], 5 => []];

    /** @var array<int, array<int, float>> INF where so little must not be let through */
    private array $lost = [0 => [], 1 => [], 3 => [], 5 => []];

    /**
     * @param list<int> $rows  what the options are of, in the order of the scene
     * @param string    $ends  the last row in each row, packed
     * @param Bits      $fixed rows that stay as they are
     */
    public function __construct(private readonly Options $options, array $rows, string $ends, Bits $fixed)
    {
        $stays = $this->find($rows, $rows === [] ? [] : Packed::uint32($ends, 0, $fixed->length + 1), $fixed);
        if ($this->holds !== []) {
            $this->prepare($stays);
        }
    }

    /** @return Chosen|null by place among the rows; null when they cannot fit */
    public function within(int $budget, bool $isGuess = false): ?Chosen
    {
        $options = $this->options;
        if ($this->holds === [] || $options->cost() <= $budget) {
            return (new Choice($options))->within($budget, $isGuess);
        }
        if ($options->count() <= self::FEW) {
            $set = (new LayersChoice(...$this->asLayers()))->within($budget);

            return $set === null ? null : $this->chosen($this->down($set));
        }
        $least = $this->priced(1e9);
        if ($this->cost($least) > $budget) {
            return null;
        }
        $held = $least;
        [$low, $high] = self::PRICES;
        for ($round = 0; $round < self::ROUNDS[$isGuess ? 0 : 1]; $round++) {
            $found = $this->priced($price = sqrt($low * $high));
            if ($this->cost($found) <= $budget) {
                [$held, $high] = [$found, $price];
            } else {
                $low = $price;
            }
        }
        $best = null;
        foreach ([$held, []] as $caps) {
            $rungs = $this->anew($caps, $budget, $isGuess);
            $chosen = $rungs === null ? null : $this->chosen($rungs);
            $best = $chosen !== null && ($best === null || $chosen->loss < $best->loss) ? $chosen : $best;
        }

        return $best ?? $this->chosen($held);
    }

    /** The least that all can cost. */
    public function least(): int
    {
        return $this->holds === [] ? $this->options->least() : $this->cost($this->priced(1e9));
    }

    /**
     * @param list<int> $rows
     * @param list<int> $ends
     *
     * @return array<int, true> places of what holds something that has to stay
     */
    private function find(array $rows, array $ends, Bits $fixed): array
    {
        $mask = null;
        $stays = $open = [];
        foreach ($rows as $at => $row) {
            while ($open !== [] && $ends[$rows[end($open)]] < $row) {
                $this->holds[(int) array_pop($open)] = $at - 1;
            }
            $this->above[$at] = $open === [] ? -1 : end($open);
            if ($ends[$row] > $row) {
                $mask ??= $fixed->mask();
                $first = strpos($mask, "\xff", $row + 1);
                if ($first !== false && $first <= $ends[$row]) {
                    $stays[$at] = true;
                }
                $open[] = $at;
            }
        }
        foreach ($open as $at) {
            $this->holds[$at] = count($rows) - 1;
        }
        foreach ($this->holds as $at => $last) {
            if ($last === $at && ! isset($stays[$at])) {
                unset($this->holds[$at]);
            }
        }

        return $stays;
    }

    /** @param array<int, true> $stays */
    private function prepare(array $stays): void
    {
        $options = $this->options;
        $this->costs[5] = $options->costs;
        $this->lost[5] = array_fill(0, $options->count(), 0.0);
        foreach (Options::RUNGS as $rung) {
            $costs = $options->costsAt[$rung];
            $lost = $options->lossesAt[$rung];
            foreach ($lost as $at => $loss) {
                if (isset($stays[$at])) {
                    $lost[$at] = INF;
                } elseif ($loss < 0) {
                    // As low already; or it must not be hidden.
                    $lost[$at] = $rung === 0 ? INF : 0.0;
                    $costs[$at] = $options->costs[$at];
                }
            }
            $this->costs[$rung] = $costs;
            $this->lost[$rung] = $lost;
        }
    }

    /** @return array<int, int> what each is let through at most, for a price per triangle */
    private function priced(float $price): array
    {
        $above = $this->above;
        [0 => $c0, 1 => $c1, 3 => $c3, 5 => $c5] = $this->costs;
        [0 => $l0, 1 => $l1, 3 => $l3] = $this->lost;
        $in0 = $in1 = $in3 = $in5 = $b1 = $b3 = $b5 = [];
        for ($at = count($above) - 1; $at >= 0; $at--) {
            // What is best below each, of equals that which holds down less.
            $v0 = $l0[$at] + $price * $c0[$at] + ($in0[$at] ?? 0.0);
            $v1 = $l1[$at] + $price * $c1[$at] + ($in1[$at] ?? 0.0);
            $v3 = $l3[$at] + $price * $c3[$at] + ($in3[$at] ?? 0.0);
            $v5 = $price * $c5[$at] + ($in5[$at] ?? 0.0);
            $b1[$at] = $v1 <= $v0 ? 1 : 0;
            $v1 = $v1 <= $v0 ? $v1 : $v0;
            $b3[$at] = $v3 <= $v1 ? 3 : $b1[$at];
            $v3 = $v3 <= $v1 ? $v3 : $v1;
            $b5[$at] = $v5 <= $v3 ? 5 : $b3[$at];
            $v5 = $v5 <= $v3 ? $v5 : $v3;
            $by = $above[$at];
            if ($by >= 0) {
                $in0[$by] = ($in0[$by] ?? 0.0) + $v0;
                $in1[$by] = ($in1[$by] ?? 0.0) + $v1;
                $in3[$by] = ($in3[$by] ?? 0.0) + $v3;
                $in5[$by] = ($in5[$by] ?? 0.0) + $v5;
            }
        }
        $caps = [];
        foreach ($above as $at => $by) {
            $most = $by < 0 ? 5 : $caps[$by];
            $caps[$at] = $most === 5 ? $b5[$at] : ($most === 3 ? $b3[$at] : ($most === 1 ? $b1[$at] : 0));
        }

        return $caps;
    }

    /** @param array<int, int> $caps */
    private function cost(array $caps): int
    {
        $cost = 0;
        foreach ($caps as $at => $cap) {
            $cost += $this->costs[$cap][$at];
        }

        return $cost;
    }

    /**
     * What holds others stays as it is given, with all in it where it is held down; everything else is chosen anew.
     *
     * @param array<int, int> $caps
     *
     * @return array<int, int>|null rung of all that is lowered; null when nothing fits then
     */
    private function anew(array $caps, int $budget, bool $isGuess): ?array
    {
        $each = $this->options;
        $free = new Options;
        $places = $rungs = [];
        $until = -1;
        foreach ($this->above as $at => $_) {
            $cap = $caps[$at] ?? 5;
            if ($at > $until && isset($this->holds[$at]) && $cap < 5) {
                $until = $this->holds[$at];
            }
            if ($at <= $until || isset($this->holds[$at])) {
                $cap < 5 && ($rungs[$at] = $cap);
                $budget -= $this->costs[$cap][$at];

                continue;
            }
            $places[] = $at;
            $lower = [];
            foreach (Options::RUNGS as $rung) {
                if ($each->lossesAt[$rung][$at] >= 0) {
                    $lower[$rung] = [$each->costsAt[$rung][$at], $each->lossesAt[$rung][$at]];
                }
            }
            $free->add($each->costs[$at], $lower);
        }
        $chosen = $budget < 0 ? null : (new Choice($free))->within($budget, $isGuess);
        foreach ($chosen->rungs ?? [] as $thing => $rung) {
            $rungs[$places[$thing]] = $rung;
        }

        return $chosen === null ? null : $rungs;
    }

    /** @param array<int, int> $rungs of all that is let through less, also of what is as low already */
    private function chosen(array $rungs): Chosen
    {
        $options = $this->options;
        ksort($rungs);
        $rungs = array_filter(
            $rungs,
            static fn (int $rung, int $at): bool => $rung < 5 && $options->lossesAt[$rung][$at] >= 0,
            ARRAY_FILTER_USE_BOTH,
        );
        [$cost, $loss] = [$options->cost(), 0.0];
        foreach ($rungs as $at => $rung) {
            $cost += $options->costsAt[$rung][$at] - $options->costs[$at];
            $loss += $options->lossesAt[$rung][$at];
        }

        return new Chosen($rungs, $cost, $loss, 0.0);
    }

    /** @return array{array<int, int>, array<int, array<int, int>>, array<int, array<int, float>>} numbered from 1 */
    private function asLayers(): array
    {
        $parents = $costs = $lost = [];
        foreach ($this->above as $at => $by) {
            $parents[$at + 1] = $by + 1;
            foreach (LayersChoice::CAPS as $cap) {
                $costs[$at + 1][$cap] = $this->costs[$cap][$at];
                $lost[$at + 1][$cap] = $this->lost[$cap][$at];
            }
        }

        return [$parents, $costs, $lost];
    }

    /**
     * @param array<int, int> $set rung by number, of what is set lower than what is above it
     *
     * @return array<int, int> of all
     */
    private function down(array $set): array
    {
        /** @var array<int, int> $caps */
        $caps = [];
        foreach ($this->above as $at => $by) {
            $caps[$at] = $set[$at + 1] ?? ($by < 0 ? 5 : $caps[$by]);
        }

        return $caps;
    }
}
