<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Collects runs in ascending row order; equal neighbours melt together and a later run at the same row replaces the earlier one. */
final class RunsBuilder
{
    /** @var list<int> */
    private array $starts = [];

    /** @var list<int> */
    private array $values = [];

    private int $count = 0;

    public function run(int $start, int $value): void
    {
        if ($this->count > 0 && $this->starts[$this->count - 1] === $start) {
            array_pop($this->starts);
            array_pop($this->values);
            $this->count--;
        }
        if ($this->count > 0 && $this->values[$this->count - 1] === $value) {
            return;
        }
        $this->starts[] = $start;
        $this->values[] = $value;
        $this->count++;
    }

    public function finish(int $length): Runs
    {
        return Runs::fromRuns($length, $this->starts, $this->values);
    }
}
