<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** The numbers for which a condition holds: those between two ends, or all others. */
final readonly class NumberSpan
{
    public function __construct(
        public float $from,
        public float $to,
        /** Whether the ends belong to it. */
        public bool $withFrom = true,
        public bool $withTo = true,
        /** Whether the condition holds for all other numbers instead. */
        public bool $isOutside = false,
    ) {}

    public function has(float $value): bool
    {
        $isIn =
            ($this->withFrom ? $value >= $this->from : $value > $this->from) &&
            ($this->withTo ? $value <= $this->to : $value < $this->to);

        return $isIn !== $this->isOutside;
    }
}
