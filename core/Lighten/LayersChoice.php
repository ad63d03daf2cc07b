<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

/**
 * The choice of rungs for layers alone: a rung of a layer holds down what lies nested in it as well, so they are chosen from the bottom up,
 * for each rung that what is above may let through. A price for a triangle is sought at which all fit; then layers are raised again as far
 * as what is left over reaches. Where there are few layers, sums of what is lost are followed one by one as in {@see Few}.
 */
final class LayersChoice
{
    /** What a layer lets through at most, from most to least. */
    public const CAPS = [5, 3, 1, 0];

    /** Layers of which all sums are followed. */
    private const FEW = 40;

    /** Parts that what is lost is counted in then. */
    private const PARTS = 240;

    /** @var array<int, list<int>> layers nested in each, 0 for those in none */
    private array $nested = [];

    /** @var list<int> in the order in which what is chosen is noted */
    private array $order = [];

    /**
     * @param array<int, int>              $parents layer above by layer, 0 for none
     * @param array<int, array<int, int>>   $costs   triangles of what lies in a layer itself, by layer and cap
     * @param array<int, array<int, float>> $losses  what is lost, INF where the layer must not let so little through
     */
    public function __construct(private readonly array $parents, private readonly array $costs, private readonly array $losses)
    {
        foreach ($parents as $layer => $above) {
            $this->nested[$above][] = $layer;
        }
        $this->note(0);
    }

    /**
     * @param int $budget triangles for all layers
     *
     * @return array<int, int>|null rung by layer, of those that are set lower than what is above them lets through; null when nothing fits
     */
    public function within(int $budget): ?array
    {
        $least = $this->atPrice(1e18);
        if ($least === null || $this->cost($least) > $budget) {
            return null;
        }
        [$low, $high] = [0.0, 1.0];
        $best = $this->atPrice(0.0);
        if ($best !== null && $this->cost($best) <= $budget) {
            return $this->set($best);
        }
        $best = $least;
        for ($round = 0; $round < 70; $round++) {
            $price = $round < 2 ? $high : sqrt(max($low, 1e-15) * $high);
            $found = $this->atPrice($price);
            if ($found !== null && $this->cost($found) <= $budget) {
                $best = $this->loss($found) <= $this->loss($best) ? $found : $best;
                $high = $price;
            } else {
                $low = $price;
            }
        }
        $best = $this->raised($best, $budget);
        if (count($this->order) <= self::FEW && $this->loss($best) > 0) {
            $anew = $this->followed($budget, $this->loss($best));
            $best = $anew !== null && $this->loss($anew) < $this->loss($best) ? $anew : $best;
        }

        return $this->set($best);
    }

    private function note(int $above): void
    {
        foreach ($this->nested[$above] ?? [] as $layer) {
            $this->order[] = $layer;
            $this->note($layer);
        }
    }

    /**
     * The best for a price per triangle.
     *
     * @return string|null caps in order, a digit each
     */
    private function atPrice(float $price): ?string
    {
        $whole = '';
        foreach ($this->nested[0] ?? [] as $layer) {
            $best = $this->priced($layer, $price)[5];
            if ($best === null) {
                return null;
            }
            $whole .= $best[1];
        }

        return $whole;
    }

    /** @return array<int, array{float, string}|null> loss and price of the best below each cap, and its caps */
    private function priced(int $layer, float $price): array
    {
        $inside = array_map(fn (int $nested): array => $this->priced($nested, $price), $this->nested[$layer] ?? []);
        $below = [];
        $best = null;
        foreach (array_reverse(self::CAPS) as $cap) {
            $value = $this->losses[$layer][$cap] + $price * $this->costs[$layer][$cap];
            $caps = (string) $cap;
            foreach ($inside as $nested) {
                $value += $nested[$cap][0] ?? INF;
                $caps .= $nested[$cap][1] ?? '';
            }
            // Of equals the one that holds down less.
            if ($value < INF && ($best === null || $value <= $best[0])) {
                $best = [$value, $caps];
            }
            $below[$cap] = $best;
        }

        return $below;
    }

    /** Layers are raised again while that fits, always the one that wins most for a triangle. */
    private function raised(string $caps, int $budget): string
    {
        $place = array_flip($this->order);
        do {
            $best = null;
            $left = $budget - $this->cost($caps);
            foreach ($this->order as $at => $layer) {
                $above = $this->parents[$layer] === 0 ? 5 : (int) $caps[$place[$this->parents[$layer]]];
                $now = (int) $caps[$at];
                foreach (self::CAPS as $cap) {
                    $more = $this->costs[$layer][$cap] - $this->costs[$layer][$now];
                    $won = $this->losses[$layer][$now] - $this->losses[$layer][$cap];
                    if (
                        $cap > $now &&
                        $cap <= $above &&
                        $more <= $left &&
                        $won > 0 &&
                        ($best === null || $won / max(1, $more) > $best[0])
                    ) {
                        $best = [$won / max(1, $more), $at, $cap];
                    }
                }
            }
            if ($best !== null) {
                $caps[$best[1]] = (string) $best[2];
            }
        } while ($best !== null);

        return $caps;
    }

    private function followed(int $budget, float $known): ?string
    {
        $part = $known / self::PARTS;
        $sums = [0 => [0, '']];
        foreach ($this->nested[0] ?? [] as $layer) {
            $sums = self::joined($sums, $this->sums($layer, $part)[5]);
        }
        ksort($sums);
        foreach ($sums as [$cost, $caps]) {
            if ($cost <= $budget) {
                return $caps;
            }
        }

        return null;
    }

    /** @return array<int, array<int, array{int, string}>> the cheapest caps and their cost, by cap above and parts lost */
    private function sums(int $layer, float $part): array
    {
        $inside = array_map(fn (int $nested): array => $this->sums($nested, $part), $this->nested[$layer] ?? []);
        $all = $below = [];
        foreach (array_reverse(self::CAPS) as $cap) {
            $lost = $this->losses[$layer][$cap] / $part;
            if ($lost <= self::PARTS) {
                $here = [(int) $lost => [$this->costs[$layer][$cap], (string) $cap]];
                foreach ($inside as $nested) {
                    $here = self::joined($here, $nested[$cap]);
                }
                foreach ($here as $sum => $one) {
                    if (! isset($all[$sum]) || $one[0] <= $all[$sum][0]) {
                        $all[$sum] = $one;
                    }
                }
            }
            $below[$cap] = $all;
        }

        return $below;
    }

    /**
     * @param array<int, array{int, string}> $some
     * @param array<int, array{int, string}> $others
     *
     * @return array<int, array{int, string}>
     */
    private static function joined(array $some, array $others): array
    {
        $joined = [];
        foreach ($some as $sum => [$cost, $caps]) {
            foreach ($others as $more => [$its, $itsCaps]) {
                $at = $sum + $more;
                if ($at <= self::PARTS && (! isset($joined[$at]) || $cost + $its < $joined[$at][0])) {
                    $joined[$at] = [$cost + $its, $caps.$itsCaps];
                }
            }
        }

        return $joined;
    }

    private function cost(string $caps): int
    {
        $cost = 0;
        foreach ($this->order as $at => $layer) {
            $cost += $this->costs[$layer][(int) $caps[$at]];
        }

        return $cost;
    }

    private function loss(string $caps): float
    {
        $loss = 0.0;
        foreach ($this->order as $at => $layer) {
            $loss += $this->losses[$layer][(int) $caps[$at]];
        }

        return $loss;
    }

    /** @return array<int, int> only what is lower than what is above */
    private function set(string $caps): array
    {
        $set = [];
        $place = array_flip($this->order);
        foreach ($this->order as $at => $layer) {
            $above = $this->parents[$layer] === 0 ? 5 : (int) $caps[$place[$this->parents[$layer]]];
            if ((int) $caps[$at] < $above) {
                $set[$layer] = (int) $caps[$at];
            }
        }

        return $set;
    }
}
