<?php

declare(strict_types=1);

namespace VineShelf\Layers;

use VineShelf\Facts\Tally;
use VineShelf\Scene\Runs;
use VineShelf\Scene\Scene;

/** What the layers of a scene hold: counts, weight, and the mix of rungs or picks in them. */
final class Contents
{
    /** @var array<int, list<array{int, int}>> row ranges by layer number, those that were asked for */
    private array $ranges = [];

    private readonly Tally $tally;

    /** @var \WeakMap<Runs, array<int, array<int, int>>> */
    private \WeakMap $spreads;

    public function __construct(private readonly Scene $scene, private readonly LayerTree $tree)
    {
        $this->spreads = new \WeakMap;
        $this->tally = Tally::of($scene, 'layer');
    }

    /** @return list<array{int, int}> first and last row of each range of the layer's own objects */
    public function ranges(int $layer): array
    {
        return $this->ranges[$layer] ??= $this->scene->layers()->ranges($layer);
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
     * How many of the layer's own objects have which value of a column.
     *
     * @return array<int, int> objects by value
     */
    public function spread(int $layer, Runs $column): array
    {
        if ($column->count() === 1) {
            $objects = $this->objects($layer);

            return $objects === 0 ? [] : [$column->values[0] => $objects];
        }
        $this->spreads[$column] ??= $this->spreads($column);

        return $this->spreads[$column][$layer] ?? [];
    }

    /** @return array<int, array<int, int>> for every layer, objects by value: one walk along both columns */
    private function spreads(Runs $column): array
    {
        $layers = $this->scene->layers();
        $spreads = [];
        $at = 0;
        $next = $column->end(0);
        foreach ($layers->values as $index => $layer) {
            $row = $layers->starts[$index];
            $last = $layers->end($index);
            while ($row <= $last) {
                while ($next < $row) {
                    $next = $column->end(++$at);
                }
                $until = $next < $last ? $next : $last;
                $value = $column->values[$at];
                $spreads[$layer][$value] = ($spreads[$layer][$value] ?? 0) + $until - $row + 1;
                $row = $until + 1;
            }
        }

        return $spreads;
    }

    /** The row of the layer's own object at $offset, counted from 0, 0 if there is none. */
    public function rowAt(int $layer, int $offset): int
    {
        foreach ($this->ranges($layer) as [$first, $last]) {
            if ($offset <= $last - $first) {
                return $first + $offset;
            }
            $offset -= $last - $first + 1;
        }

        return 0;
    }
}
