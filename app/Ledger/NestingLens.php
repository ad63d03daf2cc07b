<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Workbench\Bench;

/** Objects as the source nests them. */
final class NestingLens implements Lens
{
    /** @var list<int> scene rows on show, in order */
    private array $shown = [];

    /** @var list<int> */
    private array $levels = [];

    /** @var array<int, true> scene rows that are unfolded */
    private array $unfolded = [];

    /**
     * @param array<int, true> $unfolded object numbers
     * @param list<int>|null   $found    scene rows to narrow down to, null for all
     */
    public function __construct(private readonly Bench $bench, array $unfolded, private readonly ?array $found = null)
    {
        foreach (array_keys($unfolded) as $number) {
            $this->unfolded[$bench->scene()->row($number)] = true;
        }
        unset($this->unfolded[0]);
        $found === null ? $this->layAll() : $this->layFound($found);
    }

    public function total(): int
    {
        return count($this->shown);
    }

    public function rows(int $from, int $count): array
    {
        $scene = $this->bench->scene();
        $wanted = [];
        for ($at = $from; $at < min($from + $count, count($this->shown)); $at++) {
            $row = $this->shown[$at];
            $wanted[] = [$row, $this->levels[$at], $scene->end($row) > $row, $this->found !== null || isset($this->unfolded[$row])];
        }

        return (new ObjectRows($this->bench))->make($wanted);
    }

    public function keys(int $from, int $count): array
    {
        return array_map(fn (int $row): string => 'O'.$this->bench->scene()->number($row), array_slice($this->shown, $from, $count));
    }

    public function position(string $key): ?int
    {
        $row = $this->bench->scene()->row((int) substr($key, 1));
        $low = 0;
        $high = count($this->shown) - 1;
        while ($low <= $high) {
            $middle = ($low + $high) >> 1;
            if ($this->shown[$middle] === $row) {
                return $middle;
            }
            if ($this->shown[$middle] < $row) {
                $low = $middle + 1;
            } else {
                $high = $middle - 1;
            }
        }

        return null;
    }

    private function layAll(): void
    {
        $scene = $this->bench->scene();
        $count = $scene->count();
        $ends = [];
        $depth = 0;
        $row = 1;
        while ($row <= $count) {
            while ($depth > 0 && $ends[$depth] < $row) {
                $depth--;
            }
            $this->shown[] = $row;
            $this->levels[] = $depth + 1;
            $end = $scene->end($row);
            if (isset($this->unfolded[$row]) && $end > $row) {
                $ends[++$depth] = $end;
                $row++;
            } else {
                $row = $end + 1;
            }
        }
    }

    /** @param list<int> $found */
    private function layFound(array $found): void
    {
        $scene = $this->bench->scene();
        $rows = [];
        foreach ($found as $row) {
            while ($row !== 0 && ! isset($rows[$row])) {
                $rows[$row] = $row;
                $row = $scene->parent($row);
            }
        }
        ksort($rows);
        $ends = [];
        $depth = 0;
        foreach ($rows as $row) {
            while ($depth > 0 && $ends[$depth] < $row) {
                $depth--;
            }
            $this->shown[] = $row;
            $this->levels[] = $depth + 1;
            $ends[++$depth] = $scene->end($row);
        }
    }
}
