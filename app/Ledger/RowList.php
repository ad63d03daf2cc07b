<?php

declare(strict_types=1);

namespace App\Ledger;

use VineShelf\Facts\Ordered;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;

/** Some of a scene's rows in an order, read a window at a time. */
final class RowList
{
    private ?Bits $rows = null;

    private ?int $count;

    /**
     * @param \Closure(): Bits|null   $find  the rows; null for all
     * @param Ordered|Bands|null      $order null for the order of the scene
     * @param int|null                $count how many rows there are, where that is known
     */
    public function __construct(
        private readonly int $length,
        private readonly ?\Closure $find,
        private readonly Ordered|Bands|null $order = null,
        ?int $count = null,
    ) {
        $this->count = $find === null ? $length : $count;
    }

    public function count(): int
    {
        return $this->count ??= $this->rows()->count();
    }

    /** @return list<int> */
    public function slice(int $offset, int $count): array
    {
        if ($this->find === null) {
            return $this->order?->slice($offset, $count) ??
                ($offset >= $this->length || $count < 1 ? [] : range($offset + 1, min($this->length, $offset + $count)));
        }

        return $this->order?->sliceOf($this->rows(), $offset, $count) ?? $this->rows()->slice($offset, $count);
    }

    /** Where a row stands, counted from 0; null when it is not among them. */
    public function position(int $row): ?int
    {
        if ($this->find === null) {
            return $this->order?->place($row) ?? $row - 1;
        }
        if (! $this->rows()->has($row)) {
            return null;
        }

        return $this->order?->place($row, $this->rows()) ?? $this->rows()->rank($row);
    }

    public function rows(): Bits
    {
        return $this->rows ??= $this->find === null ? Bits::all($this->length) : ($this->find)();
    }
}
