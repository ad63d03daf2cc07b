<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** The same numbers on every machine and in every version of PHP (a linear congruential generator, modulus 2^31). */
final class Dice
{
    public function __construct(private int $seed) {}

    public function between(float $low, float $high): float
    {
        $this->seed = ($this->seed * 1103515245 + 12345) & 0x7fffffff;

        return $low + (($high - $low) * ($this->seed >> 8)) / 0x7fffff;
    }
}
