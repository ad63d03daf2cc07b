<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Workbench\Bench;

/**
 * Objects as the source nests them. What is on show is kept as ranges of rows: everything, less what is folded away. That costs
 * what the groups cost, not what the objects cost.
 */
final class NestingLens implements Lens
{
    /** @var list<array{int, int, int}> first and last scene row on show, and where the first stands, counted from 0 */
    private array $shown = [];

    private int $total = 0;

    /** @var array<int, true> object numbers */
    private readonly array $unfolded;

    /**
     * @param array<int, true> $unfolded object numbers
     * @param list<int>|null   $found    scene rows to narrow down to, null for all
     */
    public function __construct(private readonly Bench $bench, array $unfolded, private readonly ?array $found = null)
    {
        $this->unfolded = $unfolded;
        $found === null ? $this->showAll() : $this->showFound($found);
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
            $wanted[] = [$row, $scene->depth($row), $scene->end($row) > $row, $this->found !== null || isset($this->unfolded[$scene->number($row)])];
        }

        return (new ObjectRows($this->bench))->make($wanted);
    }

    public function keys(int $from, int $count): array
    {
        return array_map(fn (int $row): string => 'O'.$this->bench->scene()->number($row), $this->window($from, $count));
    }

    public function position(string $key): ?int
    {
        $row = $this->bench->scene()->row((int) substr($key, 1));
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
        foreach ($scene->groups() as $group) {
            if ($group >= $next && ! isset($this->unfolded[$scene->number($group)])) {
                $this->show($next, $group);
                $next = $scene->end($group) + 1;
            }
        }
        $this->show($next, $scene->count());
    }

    /** @param list<int> $found */
    private function showFound(array $found): void
    {
        $rows = [];
        foreach ($found as $row) {
            while ($row !== 0 && ! isset($rows[$row])) {
                $rows[$row] = $row;
                $row = $this->bench->scene()->parent($row);
            }
        }
        ksort($rows);
        foreach ($rows as $row) {
            $this->show($row, $row);
        }
    }

    private function show(int $first, int $last): void
    {
        if ($last >= $first) {
            $this->shown[] = [$first, $last, $this->total];
            $this->total += $last - $first + 1;
        }
    }
}
