<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Packed;

/**
 * A code per row, such as which of a property's values an object has; 0 for none. What most rows have is kept row by row; what few have, as
 * a list of those rows and their codes, so that hundreds of properties that hardly any object carries take no room.
 *
 * Packed: "D" and a uint32 per row, entry 0 unused; or "S", how many, the rows ascending, their codes.
 */
final readonly class Codes
{
    /** Of so many rows one must have a code for all rows to be kept. */
    private const SPARSE = 3;

    private function __construct(private string $packed) {}

    /**
     * @param array<int, int> $codes by row, only where there is one, ascending
     * @param int             $count rows in all
     */
    public static function pack(array $codes, int $count): string
    {
        if (count($codes) * self::SPARSE < $count) {
            return 'S'.
                pack('V', count($codes)).
                ($codes === [] ? '' : pack('V*', ...array_keys($codes)).pack('V*', ...array_values($codes)));
        }
        $all = array_fill(0, $count + 1, 0);
        foreach ($codes as $row => $code) {
            $all[$row] = $code;
        }

        return 'D'.pack('V*', ...$all);
    }

    public static function unpack(string $packed): self
    {
        return new self($packed);
    }

    public function at(int $row): int
    {
        if ($this->packed[0] === 'D') {
            return Packed::uint32($this->packed, 1 + 4 * $row, 1)[0];
        }
        $count = $this->count();
        $low = 0;
        $high = $count;
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if (Packed::uint32($this->packed, 5 + 4 * $middle, 1)[0] < $row) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }
        $found = $low < $count && Packed::uint32($this->packed, 5 + 4 * $low, 1)[0] === $row;

        return $found ? Packed::uint32($this->packed, 5 + 4 * ($count + $low), 1)[0] : 0;
    }

    /** @return array<int, int> by row, ascending, only where there is one */
    public function all(): array
    {
        if ($this->packed[0] === 'D') {
            $codes = Packed::uint32($this->packed, 1, intdiv(strlen($this->packed) - 1, 4));
            unset($codes[0]);

            return array_filter($codes);
        }
        $count = $this->count();

        return $count === 0
            ? []
            : array_combine(Packed::uint32($this->packed, 5, $count), Packed::uint32($this->packed, 5 + 4 * $count, $count));
    }

    /** Whether only the rows that have a code are kept. */
    public function isSparse(): bool
    {
        return $this->packed[0] === 'S';
    }

    /** How many rows a sparse column names. */
    private function count(): int
    {
        return Packed::uint32($this->packed, 1, 1)[0];
    }
}
