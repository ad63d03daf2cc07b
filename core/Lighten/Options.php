<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

/**
 * What each of many things could be drawn as: what it costs in triangles on each rung, and how much of the picture is lost. Kept as
 * columns, since there may be hundreds of thousands.
 */
final class Options
{
    /** Rungs that things are lowered to, from most to least. */
    public const RUNGS = [3, 1, 0];

    /** Of a rung that a thing cannot be lowered to. */
    public const NEVER = -1.0;

    /**
     * What each costs as it stands.
     *
     * @var array<int, int>
     */
    public array $costs = [];

    /** @var array<int, array<int, int>> */
    public array $costsAt = [3 => [], 1 => [], 0 => []];

    /**
     * Parts of the picture, 0 to 1; {@see NEVER} where that cannot be.
     *
     * @var array<int, array<int, float>> by rung
     */
    public array $lossesAt = [3 => [], 1 => [], 0 => []];

    /**
     * @param array<int, array{int, float}> $lower cost and loss by rung, of {@see RUNGS}, where it can be lowered to that
     */
    public function add(int $cost, array $lower): void
    {
        $this->costs[] = $cost;
        foreach (self::RUNGS as $rung) {
            $this->costsAt[$rung][] = $lower[$rung][0] ?? $cost;
            $this->lossesAt[$rung][] = $lower[$rung][1] ?? self::NEVER;
        }
    }

    public function count(): int
    {
        return count($this->costs);
    }

    /** What all cost as they stand. */
    public function cost(): int
    {
        return array_sum($this->costs);
    }

    /** The least that all can cost. */
    public function least(): int
    {
        $least = $this->costs;
        foreach (self::RUNGS as $rung) {
            $losses = $this->lossesAt[$rung];
            foreach ($this->costsAt[$rung] as $at => $cost) {
                if ($cost < $least[$at] && $losses[$at] >= 0) {
                    $least[$at] = $cost;
                }
            }
        }

        return array_sum($least);
    }
}
