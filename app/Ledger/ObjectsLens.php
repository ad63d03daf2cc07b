<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use VineShelf\Facts\Ordered;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;

/** Every object, flat, sorted by any column. */
final readonly class ObjectsLens implements Lens
{
    private RowList $rows;

    public function __construct(private Bench $bench, Ordered|Bands|null $order, ?Bits $found)
    {
        $this->rows = new RowList($bench->scene()->count(), $found === null ? null : static fn (): Bits => $found, $order);
    }

    public function total(): int
    {
        return $this->rows->count();
    }

    public function rows(int $from, int $count): array
    {
        return (new ObjectRows($this->bench))->make(
            array_map(static fn (int $row): array => [$row, 1, false, false], $this->rows->slice($from, $count)),
        );
    }

    public function keys(int $from, int $count): array
    {
        return array_map(fn (int $row): string => 'O'.$this->bench->scene()->number($row), $this->rows->slice($from, $count));
    }

    public function hits(): int
    {
        return $this->rows->count();
    }

    public function hit(int $index): ?int
    {
        return $this->rows->slice($index, 1)[0] ?? null;
    }

    public function hitOf(int $row): ?int
    {
        return $this->rows->position($row);
    }

    public function position(string $key): ?int
    {
        $row = $key[0] === 'O' ? $this->bench->scene()->row((int) substr($key, 1)) : 0;

        return $row === 0 ? null : $this->rows->position($row);
    }
}
