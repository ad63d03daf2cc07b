<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * A column of small numbers over the rows 1..length, kept as runs of equal values.
 *
 * Models are sorted in large contiguous pieces, so a column of 200,000 layer numbers or rungs is usually a few hundred runs:
 * sums, histograms and merges then cost what the runs cost, not what the rows cost.
 */
final readonly class Runs
{
    /**
     * @param list<int> $starts first row of each run, ascending, the first one 1; empty when length is 0
     * @param list<int> $values value of each run; neighbours differ
     */
    private function __construct(
        public int $length,
        public array $starts,
        public array $values,
    ) {}

    public static function constant(int $length, int $value): self
    {
        return $length === 0 ? new self(0, [], []) : new self($length, [1], [$value]);
    }

    /** @param iterable<int> $values one per row, in row order */
    public static function fromValues(iterable $values): self
    {
        $build = new RunsBuilder;
        $row = 1;
        foreach ($values as $value) {
            $build->run($row++, $value);
        }

        return $build->finish($row - 1);
    }

    /**
     * @internal for RunsBuilder
     *
     * @param list<int> $starts
     * @param list<int> $values
     */
    public static function fromRuns(int $length, array $starts, array $values): self
    {
        return new self($length, $starts, $values);
    }

    public function pack(): string
    {
        return pack('VV', $this->length, count($this->starts)).pack('V*', ...$this->starts).pack('V*', ...$this->values);
    }

    public static function unpack(string $packed): self
    {
        [$length, $count] = Packed::uint32($packed, 0, 2);
        if ($count === 0) {
            return new self($length, [], []);
        }

        return new self($length, Packed::uint32($packed, 8, $count), Packed::uint32($packed, 8 + 4 * $count, $count));
    }

    public function count(): int
    {
        return count($this->starts);
    }

    /** The last row of run $index. */
    public function end(int $index): int
    {
        return ($this->starts[$index + 1] ?? $this->length + 1) - 1;
    }

    public function at(int $row): int
    {
        return $this->values[$this->indexOf($row)];
    }

    /** The index of the run that holds $row. */
    public function indexOf(int $row): int
    {
        $low = 0;
        $high = count($this->starts) - 1;
        while ($low < $high) {
            $middle = ($low + $high + 1) >> 1;
            if ($this->starts[$middle] <= $row) {
                $low = $middle;
            } else {
                $high = $middle - 1;
            }
        }

        return $low;
    }

    /** One byte per row, values 0 to 255; row 1 is byte 0. */
    public function bytes(): string
    {
        $bytes = '';
        foreach ($this->starts as $index => $start) {
            $bytes .= str_repeat(chr($this->values[$index] & 255), $this->end($index) - $start + 1);
        }

        return $bytes;
    }

    /** @return array<int, int> rows per value */
    public function histogram(): array
    {
        $rows = [];
        foreach ($this->starts as $index => $start) {
            $value = $this->values[$index];
            $rows[$value] = ($rows[$value] ?? 0) + $this->end($index) - $start + 1;
        }

        return $rows;
    }

    /** @param callable(int): int $value */
    public function map(callable $value): self
    {
        $build = new RunsBuilder;
        foreach ($this->starts as $index => $start) {
            $build->run($start, $value($this->values[$index]));
        }

        return $build->finish($this->length);
    }

    /**
     * The same column with the value changed in the given rows.
     *
     * @param list<int> $rows ascending, without repeats
     */
    public function with(array $rows, int $value): self
    {
        $build = new RunsBuilder;
        foreach ($this->beside(self::marking($this->length, $rows)) as [$start, , $held, $marked]) {
            $build->run($start, $marked === 1 ? $value : $held);
        }

        return $build->finish($this->length);
    }

    /**
     * A column that is 1 in the given rows and 0 elsewhere.
     *
     * @param list<int> $rows ascending, without repeats
     */
    public static function marking(int $length, array $rows): self
    {
        $build = new RunsBuilder;
        $next = 1;
        if ($length > 0) {
            $build->run(1, 0);
        }
        foreach ($rows as $row) {
            if ($row !== $next) {
                $build->run($next, 0);
            }
            $build->run($row, 1);
            $next = $row + 1;
        }
        if ($next <= $length) {
            $build->run($next, 0);
        }

        return $build->finish($length);
    }

    /**
     * Walks two columns of the same length side by side.
     *
     * @return \Generator<int, array{int, int, int, int}> first row, last row, value here, value there
     */
    public function beside(self $other): \Generator
    {
        $mine = 0;
        $theirs = 0;
        $row = 1;
        while ($row <= $this->length) {
            $end = min($this->end($mine), $other->end($theirs));
            yield [$row, $end, $this->values[$mine], $other->values[$theirs]];
            if ($this->end($mine) === $end) {
                $mine++;
            }
            if ($other->end($theirs) === $end) {
                $theirs++;
            }
            $row = $end + 1;
        }
    }

    /**
     * The rows that hold $value, as ranges.
     *
     * @return list<array{int, int}> first and last row of each range
     */
    public function ranges(int $value): array
    {
        $ranges = [];
        foreach ($this->values as $index => $held) {
            if ($held === $value) {
                $ranges[] = [$this->starts[$index], $this->end($index)];
            }
        }

        return $ranges;
    }
}
