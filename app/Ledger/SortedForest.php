<?php

declare(strict_types=1);

namespace App\Ledger;

use VineShelf\Facts\Ordered;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Counter;
use VineShelf\Scene\Scene;

/** The rows on show of a nesting, each one's children sorted. Only the children on the way to a window are put in order. */
final class SortedForest
{
    private readonly Counter $counter;

    /** @var array<int, list<int>> children on show, sorted, by parent */
    private array $children = [];

    /** @param Bits $shown rows on show: with a row, everything above it */
    public function __construct(private readonly Scene $scene, private readonly Bits $shown, private readonly Ordered|Bands $order)
    {
        $this->counter = new Counter($shown);
    }

    /** @return list<int> rows in the order on show */
    public function slice(int $offset, int $count): array
    {
        $rows = [];
        $this->collect(0, $offset, $count, $rows);

        return $rows;
    }

    /** Where a row stands, counted from 0; null when it is folded away. */
    public function place(int $row): ?int
    {
        if (! $this->shown->has($row)) {
            return null;
        }
        $place = 0;
        while ($row !== 0) {
            $parent = $this->scene->parent($row);
            foreach ($this->children($parent) as $child) {
                if ($child === $row) {
                    break;
                }
                $place += $this->size($child);
            }
            $place += $parent === 0 ? 0 : 1;
            $row = $parent;
        }

        return $place;
    }

    /** @param list<int> $rows */
    private function collect(int $parent, int $offset, int $count, array &$rows): void
    {
        foreach ($this->children($parent) as $child) {
            $size = $this->size($child);
            if ($offset >= $size) {
                $offset -= $size;

                continue;
            }
            if ($offset === 0) {
                $rows[] = $child;
            }
            if ($size > 1 && count($rows) < $count) {
                $this->collect($child, max(0, $offset - 1), $count, $rows);
            }
            $offset = 0;
            if (count($rows) >= $count) {
                break;
            }
        }
    }

    /** Rows on show of a row and what it holds. */
    private function size(int $row): int
    {
        return $this->counter->before($this->scene->end($row) + 1) - $this->counter->before($row);
    }

    /** @return list<int> */
    private function children(int $parent): array
    {
        if (! isset($this->children[$parent])) {
            $children = array_values(array_filter($this->scene->children($parent), $this->shown->has(...)));
            $places = array_map($this->order->place(...), $children);
            array_multisort($places, $children);
            $this->children[$parent] = $children;
        }

        return $this->children[$parent];
    }
}
