<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Counts how many rows of a set lie in a stretch, many times over: sums at every 64 bytes, and the bytes in between. */
final readonly class Counter
{
    private const BLOCK = 64;

    /** @var list<int> rows before each block */
    private array $sums;

    public function __construct(private Bits $bits)
    {
        $sums = [0];
        foreach (str_split($bits->bytes, self::BLOCK) as $block) {
            $sums[] = $sums[count($sums) - 1] + Bits::counted($block);
        }
        $this->sums = $sums;
    }

    /** How many of the rows are before $row. */
    public function before(int $row): int
    {
        $byte = $row >> 3;
        $block = intdiv($byte, self::BLOCK);
        $start = $block * self::BLOCK;
        $within = substr($this->bits->bytes, $start, $byte - $start);
        $last = $byte < strlen($this->bits->bytes) ? ord($this->bits->bytes[$byte]) & ((1 << ($row & 7)) - 1) : 0;

        return $this->sums[$block] + Bits::counted($within) + Bits::counted(chr($last));
    }
}
