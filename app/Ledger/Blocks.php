<?php

declare(strict_types=1);

namespace App\Ledger;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Counter;
use VineShelf\Scene\Runs;

/** All rows of a scene sorted by a column that is kept as runs: one block per value, in each the order of the scene. */
final class Blocks
{
    /** @var list<list<array{int, int}>>|null first and last row of each stretch, by block */
    private ?array $blocks = null;

    /** @param list<int> $values in the order in which they come */
    public function __construct(private readonly Runs $runs, private readonly array $values) {}

    /** @return list<int> */
    public function slice(int $offset, int $count): array
    {
        return $this->sliceOf(Bits::all($this->runs->length), $offset, $count);
    }

    /** @return list<int> some of the rows that are in a set */
    public function sliceOf(Bits $among, int $offset, int $count): array
    {
        $counter = new Counter($among);
        $kept = [];
        foreach ($this->stretches() as [$first, $last]) {
            $before = $counter->before($first);
            $here = $counter->before($last + 1) - $before;
            if ($here <= $offset) {
                $offset -= $here;

                continue;
            }
            array_push($kept, ...$among->slice($before + $offset, min($here - $offset, $count - count($kept))));
            $offset = 0;
            if (count($kept) >= $count) {
                break;
            }
        }

        return $kept;
    }

    /** Where a row stands, counted from 0; among those of a set when there is one. */
    public function place(int $row, ?Bits $among = null): int
    {
        $counter = new Counter($among ?? Bits::all($this->runs->length));
        $place = 0;
        foreach ($this->stretches() as [$first, $last]) {
            if ($row >= $first && $row <= $last) {
                return $place + $counter->before($row) - $counter->before($first);
            }
            $place += $counter->before($last + 1) - $counter->before($first);
        }

        return $place;
    }

    /** @return iterable<array{int, int}> */
    private function stretches(): iterable
    {
        if ($this->blocks === null) {
            $byValue = [];
            foreach ($this->runs->values as $index => $value) {
                $byValue[$value][] = [$this->runs->starts[$index], $this->runs->end($index)];
            }
            $this->blocks = array_map(static fn (int $value): array => $byValue[$value] ?? [], $this->values);
        }
        foreach ($this->blocks as $block) {
            yield from $block;
        }
    }
}
