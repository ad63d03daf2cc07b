<?php

declare(strict_types=1);

namespace VineShelf\Layers;

use VineShelf\Facts\Tally;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Scene;

/** What the layers of a scene hold: counts, weight, and the mix of rungs or picks in them. */
final class Contents
{
    /** @var array<int, Bits> rows by layer number, those that were asked for */
    private array $rows = [];

    private readonly Tally $tally;

    /** @var \WeakMap<Levels, array<int, array<int, int>>> */
    private \WeakMap $spreads;

    public function __construct(private readonly Scene $scene, private readonly LayerTree $tree)
    {
        $this->spreads = new \WeakMap;
        $this->tally = Tally::of($scene, 'layer');
    }

    /** Rows of the layer's own objects. */
    public function rows(int $layer): Bits
    {
        return $this->rows[$layer] ??=
            $this->objects($layer) === 0 ? Bits::none($this->scene->count()) : $this->scene->layers()->rowsOf([$layer => true]);
    }

    /** Objects in the layer itself. */
    public function objects(int $layer): int
    {
        return $this->tally->rows[$layer] ?? 0;
    }

    /** Objects in the layer and the layers nested in it. */
    public function objectsWithNested(int $layer): int
    {
        return array_sum(array_map($this->objects(...), $this->tree->withNested($layer)));
    }

    /** Triangles drawn at Full by the layer and the layers nested in it. */
    public function trianglesWithNested(int $layer): int
    {
        return array_sum(array_map(fn (int $number): int => $this->tally->triangles[$number] ?? 0, $this->tree->withNested($layer)));
    }

    /**
     * How many of the layer's own objects are at which step.
     *
     * @return array<int, int> objects by step
     */
    public function spread(int $layer, Levels $levels): array
    {
        $steps = array_keys($levels->histogram());
        if (count($steps) === 1) {
            return $this->objects($layer) === 0 ? [] : [$steps[0] => $this->objects($layer)];
        }
        $this->spreads[$levels] ??= $this->alike($levels) ?? $levels->spread($this->scene->layers());

        return $this->spreads[$levels][$layer] ?? [];
    }

    /**
     * Desk and output are often the same: what was found for one is true of the other.
     *
     * @return array<int, array<int, int>>|null null where nothing was found for such levels
     */
    private function alike(Levels $levels): ?array
    {
        foreach ($this->spreads as $other => $spread) {
            if ($other->bytes() === $levels->bytes()) {
                return $spread;
            }
        }

        return null;
    }
}
