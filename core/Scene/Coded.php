<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * A column of whole numbers over the rows 1..length of which only some hundreds differ, such as layer numbers: a list of the values that
 * there are, and one byte per row that names one of them.
 *
 * Whatever is asked is answered by string functions that go over all rows at memory speed, so it costs the same however scattered the
 * values lie. More than 255 values take several blocks of 255: a second byte per row names the block.
 *
 * Packed: length, number of values, then the values as uint32; the bytes; the blocks where there are more than one. Byte 0 belongs to no
 * row.
 */
final class Coded
{
    /** Code 0 stands for no row. */
    private const BLOCK = 255;

    /** Values that five bits tell apart, beside none. */
    private const HANDFUL = 31;

    /** @var array<int, int> place in the list by value */
    private ?array $places = null;

    /** @var array<int, string> per block, codes of the rows in it and 0 elsewhere */
    private array $parts = [];

    /**
     * @param list<int> $values
     * @param string    $codes  by row: 1 + place of its value within the block; byte 0 is 0
     * @param string    $blocks by row: the block; empty when there is only one
     */
    private function __construct(
        public readonly int $length,
        private readonly array $values,
        private readonly string $codes,
        private readonly string $blocks,
    ) {}

    public static function constant(int $length, int $value): self
    {
        return new self($length, $length === 0 ? [] : [$value], "\0".str_repeat("\1", $length), '');
    }

    /** @param iterable<int> $values one per row, in row order */
    public static function fromValues(iterable $values): self
    {
        $places = [];
        $codes = $blocks = "\0";
        foreach ($values as $value) {
            $place = $places[$value] ??= count($places);
            $codes .= chr(($place % self::BLOCK) + 1);
            $blocks .= chr(intdiv($place, self::BLOCK) & 255);
        }
        if (count($places) > self::BLOCK * 256) {
            throw new \LengthException('A coded column holds at most '.self::BLOCK * 256 .' different values.');
        }

        return new self(strlen($codes) - 1, array_keys($places), $codes, count($places) > self::BLOCK ? $blocks : '');
    }

    public function pack(): string
    {
        return pack('VV', $this->length, count($this->values)).
            ($this->values === [] ? '' : pack('V*', ...$this->values)).
            $this->codes.
            $this->blocks;
    }

    public static function unpack(string $packed): self
    {
        [$length, $count] = Packed::uint32($packed, 0, 2);
        $at = 8 + 4 * $count;

        return new self(
            $length,
            Packed::uint32($packed, 8, $count),
            substr($packed, $at, $length + 1),
            $count > self::BLOCK ? substr($packed, $at + $length + 1, $length + 1) : '',
        );
    }

    public function at(int $row): int
    {
        return $this->values[($this->blocks === '' ? 0 : ord($this->blocks[$row]) * self::BLOCK) + ord($this->codes[$row]) - 1];
    }

    /** @return list<int> every value that a row may have, in the order in which they came */
    public function values(): array
    {
        return $this->values;
    }

    /** @param array<int, mixed> $values the rows whose value is one of the keys */
    public function rowsOf(array $values): Bits
    {
        $there = array_intersect_key(array_flip($this->values), $values);
        if ($there === []) {
            return Bits::none($this->length);
        }
        $one = $this->translated(array_map(static fn (): int => 1, $there), 0);

        return Bits::ofMask($this->length, $one);
    }

    /**
     * Another byte for every row, by its value.
     *
     * @param array<int, int> $bytes     by value, 0 to 255
     * @param int             $otherwise for values that are not named
     *
     * @return string by row; byte 0 is 0
     */
    public function translated(array $bytes, int $otherwise): string
    {
        $result = null;
        foreach ($this->blockCount() as $block) {
            $from = $to = '';
            for ($code = 1, $first = $block * self::BLOCK - 1; $code <= self::BLOCK && isset($this->values[$first + $code]); $code++) {
                $from .= chr($code);
                $to .= chr($bytes[$this->values[$first + $code]] ?? $otherwise);
            }
            $part = strtr($this->part($block), $from, $to);
            $result = $result === null ? $part : $result | $part;
        }

        return $result ?? $this->codes;
    }

    /** @return string one byte per row: 1 + place of its value among {@see values()} in the rows of a set, else 0; of at most 255 values */
    public function codes(Bits $rows): string
    {
        if ($this->blocks !== '') {
            throw new \LengthException('More than '.self::BLOCK.' values have no codes of one byte.');
        }

        return $this->codes & $rows->mask();
    }

    /** @return array<int, int> rows by value, only values that there are; with a set, only rows that are in it */
    public function histogram(?Bits $among = null): array
    {
        if (count($this->values) === 1) {
            $count = $among === null ? $this->length : $among->count();

            return $count === 0 ? [] : [$this->values[0] => $count];
        }

        return $this->histogramIn($among?->mask());
    }

    /**
     * @param string|null $mask one byte per row, 255 for the rows to count and 0 elsewhere; null for all
     *
     * @return array<int, int> rows by value, only values that there are
     */
    public function histogramIn(?string $mask): array
    {
        $rows = [];
        foreach ($this->blockCount() as $block) {
            $codes = $mask === null ? $this->part($block) : $this->part($block) & $mask;
            /** @var array<int, int> $counts */
            $counts = count_chars($codes, 1);
            unset($counts[0]);
            foreach ($counts as $code => $count) {
                $rows[$this->values[$block * self::BLOCK + $code - 1]] = $count;
            }
        }

        return $rows;
    }

    /** Passes over all rows that {@see self::histogramBeside()} takes. */
    public function passes(): int
    {
        return count($this->handfuls());
    }

    /**
     * @param string $beside a byte of 0 to 7 per row, byte 0 for none
     *
     * @return array<int, array<int, int>> rows by that byte, by value, only where there are any
     */
    public function histogramBeside(string $beside): array
    {
        $rows = [];
        foreach ($this->handfuls() as [$first, $count]) {
            // A handful of values have a number of five bits; what is counted with it takes the other three.
            $numbers = implode('', array_map(static fn (int $number): string => chr($number << 3), range(1, $count)));
            $map = substr_replace(str_repeat("\0", 256), $numbers, ($first % self::BLOCK) + 1, $count);
            /** @var array<int, int> $counts */
            $counts = count_chars(strtr($this->part(intdiv($first, self::BLOCK)), self::every(), $map) | $beside, 1);
            foreach ($counts as $code => $many) {
                if ($code > 7) {
                    $rows[$this->values[$first + ($code >> 3) - 1]][$code & 7] = $many;
                }
            }
        }

        return $rows;
    }

    /** @return list<array{int, int}> places in the list: the first of each handful of one block, and how many */
    private function handfuls(): array
    {
        $handfuls = [];
        for ($first = 0, $end = count($this->values); $first < $end; $first += $count) {
            $count = min(self::HANDFUL, $end - $first, self::BLOCK - ($first % self::BLOCK));
            $handfuls[] = [$first, $count];
        }

        return $handfuls;
    }

    /** The same column with one value in all rows of a set. */
    public function with(Bits $rows, int $value): self
    {
        $values = $this->values;
        $place = $this->places()[$value] ?? count($values);
        $values[$place] ??= $value;
        $values = array_values($values);
        $mask = $rows->mask();
        $codes = ($this->codes & ~$mask) | (str_repeat(chr(($place % self::BLOCK) + 1), $this->length + 1) & $mask);
        $blocks = $this->blocks === '' && count($values) > self::BLOCK ? str_repeat("\0", $this->length + 1) : $this->blocks;
        if ($blocks !== '') {
            $blocks = ($blocks & ~$mask) | (str_repeat(chr(intdiv($place, self::BLOCK)), $this->length + 1) & $mask);
        }

        return new self($this->length, $values, $codes, $blocks);
    }

    /** @return list<int> one per row, row 1 first */
    public function toList(): array
    {
        $list = [];
        $values = $this->values;
        $codes = $this->codes;
        $blocks = $this->blocks;
        for ($row = 1; $row <= $this->length; $row++) {
            $list[] = $values[($blocks === '' ? 0 : ord($blocks[$row]) * self::BLOCK) + ord($codes[$row]) - 1];
        }

        return $list;
    }

    /** @return array<int, int> */
    private function places(): array
    {
        return $this->places ??= array_flip($this->values);
    }

    /** @return list<int> */
    private function blockCount(): array
    {
        return $this->blocks === '' ? [0] : range(0, intdiv(count($this->values) - 1, self::BLOCK));
    }

    /** Codes of the rows in a block, 0 elsewhere. */
    private function part(int $block): string
    {
        if ($this->blocks === '') {
            return $this->codes;
        }

        return $this->parts[$block] ??= $this->codes & strtr($this->blocks, self::every(), self::only($block));
    }

    private static function every(): string
    {
        return implode('', array_map(chr(...), range(0, 255)));
    }

    private static function only(int $byte): string
    {
        return substr_replace(str_repeat("\0", 256), "\xFF", $byte, 1);
    }
}
