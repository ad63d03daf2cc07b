<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use VineShelf\Facts\Ordered;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Relatives;

/**
 * Objects as the source nests them. What is on show is kept as ranges of rows: everything, less what is folded away. That costs
 * what the groups cost, not what the objects cost.
 */
final class NestingLens implements Lens
{
    /** @var list<array{int, int, int}> first and last scene row on show, and where the first stands, counted from 0 */
    private array $shown = [];

    private int $total = 0;

    /** @var list<int>|null */
    private ?array $sortedHits = null;

    /** Set when each row's own children come sorted. */
    private ?SortedForest $sorted = null;

    /**
     * @param Ordered|Bands|null $order each row's own children come in that order; null for the order of the scene
     * @param Bits|null        $found    scene rows to narrow down to, null for all
     */
    public function __construct(
        private readonly Bench $bench,
        private readonly Pick $unfolded,
        Ordered|Bands|null $order = null,
        private readonly ?Bits $found = null,
    ) {
        if ($found === null) {
            $this->showAll();
        } else {
            foreach ($this->withAbove($found)->ranges() as [$first, $last]) {
                $this->show($first, $last);
            }
        }
        if ($order !== null) {
            $shown = array_map(static fn (array $shown): array => [$shown[0], $shown[1]], $this->shown);
            $this->sorted = new SortedForest($bench->scene(), Bits::ofRanges($bench->scene()->count(), $shown), $order);
        }
    }

    public function total(): int
    {
        return $this->total;
    }

    public function rows(int $from, int $count): array
    {
        $scene = $this->bench->scene();
        $wanted = [];
        foreach ($this->window($from, $count) as $row) {
            $wanted[] = [
                $row,
                $scene->depth($row),
                $scene->end($row) > $row,
                $this->found !== null || $this->unfolded->has($scene->number($row)),
            ];
        }

        return (new ObjectRows($this->bench))->make($wanted);
    }

    public function keys(int $from, int $count): array
    {
        return array_map(fn (int $row): string => 'O'.$this->bench->scene()->number($row), $this->window($from, $count));
    }

    public function hits(): int
    {
        return $this->hitRows()->count();
    }

    public function hit(int $index): ?int
    {
        return $this->sorted === null ? $this->hitRows()->slice($index, 1)[0] ?? null : $this->sortedHits()[$index] ?? null;
    }

    public function hitOf(int $row): ?int
    {
        if (! $this->hitRows()->has($row)) {
            return null;
        }

        return $this->sorted === null ? $this->hitRows()->rank($row) : (int) array_search($row, $this->sortedHits(), true);
    }

    private function hitRows(): Bits
    {
        return $this->found ?? Bits::all($this->bench->scene()->count());
    }

    /** @return list<int> all of them as they stand: each row's own children are sorted */
    private function sortedHits(): array
    {
        $rows = $this->sorted?->slice(0, $this->total) ?? [];

        return $this->sortedHits ??= array_values(array_filter($rows, $this->hitRows()->has(...)));
    }

    public function position(string $key): ?int
    {
        $row = $key[0] === 'O' ? $this->bench->scene()->row((int) substr($key, 1)) : 0;
        if ($this->sorted !== null) {
            return $row === 0 ? null : $this->sorted->place($row);
        }
        foreach ($this->shown as [$first, $last, $at]) {
            if ($row >= $first && $row <= $last) {
                return $at + $row - $first;
            }
        }

        return null;
    }

    /** @return list<int> scene rows */
    private function window(int $from, int $count): array
    {
        if ($this->sorted !== null) {
            return $this->sorted->slice($from, $count);
        }
        $rows = [];
        foreach ($this->shown as [$first, $last, $at]) {
            if ($at >= $from + $count) {
                break;
            }
            for ($row = $first + max(0, $from - $at); $row <= $last && $at + $row - $first < $from + $count; $row++) {
                $rows[] = $row;
            }
        }

        return $rows;
    }

    private function showAll(): void
    {
        $scene = $this->bench->scene();
        $next = 1;
        foreach ($this->bench->facts()->bits('groups')->without($this->unfolded->rows($scene))->rows() as $group) {
            if ($group >= $next) {
                $this->show($next, $group);
                $next = $scene->end($group) + 1;
            }
        }
        $this->show($next, $scene->count());
    }

    private function withAbove(Bits $found): Bits
    {
        return $found->or(Relatives::holding($this->bench->scene(), $found));
    }

    private function show(int $first, int $last): void
    {
        if ($last >= $first) {
            $this->shown[] = [$first, $last, $this->total];
            $this->total += $last - $first + 1;
        }
    }
}
