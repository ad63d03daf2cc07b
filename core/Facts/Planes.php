<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/**
 * A column of small whole numbers, one bit of every number side by side: a bit-sliced index (O'Neil and Quass, "Improved query
 * performance with variant indexes", 1997). Comparing 200,000 numbers with one costs a few string operations per bit.
 */
final readonly class Planes
{
    /** @param list<string> $planes the lowest bit first, each laid out as {@see Bits} */
    private function __construct(private int $length, private array $planes) {}

    /** @param array<int, int> $numbers 0 or more, by row, none left out; entry 0 is unused */
    public static function of(array $numbers): self
    {
        $length = max(0, count($numbers) - 1);
        $highest = $numbers === [] ? 0 : max($numbers);
        $planes = [];
        for ($bit = 0; $highest >> $bit > 0; $bit++) {
            $plane = '';
            for ($row = 0; $row + 7 <= $length; $row += 8) {
                $plane .= chr(($numbers[$row] >> $bit & 1) | ($numbers[$row + 1] >> $bit & 1) << 1 | ($numbers[$row + 2] >> $bit & 1) << 2 | ($numbers[$row + 3] >> $bit & 1) << 3
                    | ($numbers[$row + 4] >> $bit & 1) << 4 | ($numbers[$row + 5] >> $bit & 1) << 5 | ($numbers[$row + 6] >> $bit & 1) << 6 | ($numbers[$row + 7] >> $bit & 1) << 7);
            }
            for ($open = 0, $at = 0; $row <= $length; $row++, $at++) {
                $open |= ($numbers[$row] >> $bit & 1) << $at;
            }
            $planes[] = str_pad($plane.chr($open), ($length >> 3) + 1, "\0");
        }

        return new self($length, array_map(static fn (string $plane): string => substr($plane, 0, ($length >> 3) + 1), $planes));
    }

    public function pack(): string
    {
        return pack('VV', $this->length, count($this->planes)).implode('', $this->planes);
    }

    public static function unpack(string $packed): self
    {
        [$length, $count] = Packed::uint32($packed, 0, 2);
        $size = ($length >> 3) + 1;
        $planes = [];
        for ($plane = 0; $plane < $count; $plane++) {
            $planes[] = substr($packed, 8 + $plane * $size, $size);
        }

        return new self($length, $planes);
    }

    /** The rows whose number is between the two, both included. */
    public function between(int $low, int $high): Bits
    {
        if ($high < $low || $high < 0) {
            return Bits::none($this->length);
        }
        $rows = $this->atMost($high);

        return $low <= 0 ? $rows : $rows->without($this->atMost($low - 1));
    }

    /** @param list<int> $numbers the rows whose number is one of these */
    public function in(array $numbers): Bits
    {
        sort($numbers);
        $rows = Bits::none($this->length);
        $low = null;
        foreach ($numbers as $index => $number) {
            $low ??= $number;
            if (($numbers[$index + 1] ?? null) !== $number + 1 && ($numbers[$index + 1] ?? null) !== $number) {
                $rows = $rows->or($low === $number ? $this->equal($number) : $this->between($low, $number));
                $low = null;
            }
        }

        return $rows;
    }

    private function equal(int $number): Bits
    {
        if ($number < 0 || $number >> count($this->planes) > 0) {
            return Bits::none($this->length);
        }
        $equal = Bits::all($this->length)->bytes;
        foreach ($this->planes as $bit => $plane) {
            $equal &= ($number >> $bit & 1) === 1 ? $plane : ~$plane;
        }

        return Bits::ofBytes($this->length, $equal);
    }

    private function atMost(int $number): Bits
    {
        $all = Bits::all($this->length);
        if ($number >> count($this->planes) > 0) {
            return $all;
        }
        $equal = $all->bytes;
        $less = str_repeat("\0", strlen($equal));
        for ($bit = count($this->planes) - 1; $bit >= 0; $bit--) {
            if (($number >> $bit & 1) === 1) {
                $less |= $equal & ~$this->planes[$bit];
                $equal &= $this->planes[$bit];
            } else {
                $equal &= ~$this->planes[$bit];
            }
        }

        return Bits::ofBytes($this->length, $less | $equal);
    }
}
