<?php

declare(strict_types=1);

namespace App\Ledger;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/** Some of a scene's rows in an order, read a window at a time. */
final class RowList
{
    private ?string $sorted = null;

    private ?int $count = null;

    /** @param string|null $order packed uint32: all rows of the scene, sorted; null for the order of the scene */
    public function __construct(private readonly Bits $rows, private readonly ?string $order = null, private readonly bool $all = false) {}

    public function count(): int
    {
        return $this->count ??= $this->all ? $this->rows->length : $this->rows->count();
    }

    /** @return list<int> */
    public function slice(int $offset, int $count): array
    {
        if ($this->order === null) {
            return $this->all ? ($offset >= $this->rows->length ? [] : range($offset + 1, min($this->rows->length, $offset + $count))) : $this->rows->slice($offset, $count);
        }
        $sorted = $this->sorted();
        $count = max(0, min($count, intdiv(strlen($sorted), 4) - $offset));

        return Packed::uint32($sorted, $offset * 4, $count);
    }

    /** Where a row stands, counted from 0; null when it is not among them. */
    public function position(int $row): ?int
    {
        if (! $this->all && ! $this->rows->has($row)) {
            return null;
        }
        if ($this->order === null) {
            return $this->all ? $row - 1 : $this->rows->rank($row);
        }
        $wanted = pack('V', $row);
        $at = -1;
        while (($at = strpos($this->sorted(), $wanted, $at + 1)) !== false) {
            if ($at % 4 === 0) {
                return intdiv($at, 4);
            }
        }

        return null;
    }

    private function sorted(): string
    {
        if ($this->sorted === null && $this->order !== null) {
            $this->sorted = $this->all ? $this->order : self::among($this->order, $this->rows);
        }

        return (string) $this->sorted;
    }

    private static function among(string $order, Bits $rows): string
    {
        $bytes = $rows->bytes;
        $kept = [];
        foreach (Packed::uint32($order, 0, intdiv(strlen($order), 4)) as $row) {
            if ((ord($bytes[$row >> 3]) >> ($row & 7) & 1) === 1) {
                $kept[] = $row;
            }
        }

        return $kept === [] ? '' : pack('V*', ...$kept);
    }
}
