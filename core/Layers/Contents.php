<?php

declare(strict_types=1);

namespace VineShelf\Layers;

use VineShelf\Scene\Runs;
use VineShelf\Scene\Scene;

/** What the layers of a scene hold: counts, weight, and the mix of rungs or picks in them. */
final class Contents
{
    /** @var array<int, list<array{int, int}>> row ranges by layer number */
    private array $ranges = [];

    /** @var array<int, int> */
    private array $objects = [];

    /** @var array<int, int> */
    private array $triangles = [];

    public function __construct(private readonly Scene $scene, private readonly LayerTree $tree)
    {
        $layers = $scene->layers();
        foreach ($layers->values as $index => $layer) {
            $first = $layers->starts[$index];
            $last = $layers->end($index);
            $this->ranges[$layer][] = [$first, $last];
            $this->objects[$layer] = ($this->objects[$layer] ?? 0) + $last - $first + 1;
            $this->triangles[$layer] = ($this->triangles[$layer] ?? 0) + $scene->triangles($first, $last);
        }
    }

    /** @return list<array{int, int}> first and last row of each range of the layer's own objects */
    public function ranges(int $layer): array
    {
        return $this->ranges[$layer] ?? [];
    }

    /** Objects in the layer itself. */
    public function objects(int $layer): int
    {
        return $this->objects[$layer] ?? 0;
    }

    /** Objects in the layer and the layers nested in it. */
    public function objectsWithNested(int $layer): int
    {
        return array_sum(array_map($this->objects(...), $this->tree->withNested($layer)));
    }

    /** Triangles drawn at Full by the layer and the layers nested in it. */
    public function trianglesWithNested(int $layer): int
    {
        return array_sum(array_map(fn (int $number): int => $this->triangles[$number] ?? 0, $this->tree->withNested($layer)));
    }

    /**
     * How many of the layer's own objects have which value of a column.
     *
     * @return array<int, int> objects by value
     */
    public function spread(int $layer, Runs $column): array
    {
        $spread = [];
        foreach ($this->ranges($layer) as [$first, $last]) {
            for ($index = $column->indexOf($first); $first <= $last; $index++) {
                $end = min($last, $column->end($index));
                $value = $column->values[$index];
                $spread[$value] = ($spread[$value] ?? 0) + $end - $first + 1;
                $first = $end + 1;
            }
        }

        return $spread;
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
