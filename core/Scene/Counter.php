<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Counts how many rows of a set lie in a stretch, many times over: sums up to every byte, and the bits in between. */
final readonly class Counter
{
    /** @var list<int> rows before each byte, and one more for the end */
    private array $sums;

    public function __construct(private Bits $bits)
    {
        $ones = array_map(static fn (int $byte): int => Bits::counted(chr($byte)), range(0, 255));
        $bytes = $bits->bytes;
        $sums = [0];
        $sum = 0;
        for ($at = 0, $size = strlen($bytes); $at < $size; $at++) {
            $sum += $ones[ord($bytes[$at])];
            $sums[] = $sum;
        }
        $this->sums = $sums;
    }

    /** How many of the rows are before $row. */
    public function before(int $row): int
    {
        $byte = $row >> 3;
        if ($byte >= strlen($this->bits->bytes)) {
            return $this->sums[strlen($this->bits->bytes)];
        }
        $count = $this->sums[$byte];
        for ($rest = ord($this->bits->bytes[$byte]) & ((1 << ($row & 7)) - 1); $rest > 0; $rest &= $rest - 1) {
            $count++;
        }

        return $count;
    }
}
