<?php

declare(strict_types=1);

namespace VineShelf\Rules;

enum NumberTest: string
{
    case Is = '=';
    case IsNot = '!=';
    case Below = '<';
    case AtMost = '<=';
    case Above = '>';
    case AtLeast = '>=';
    /** Within a range, both ends included. */
    case Within = '..';
    case NotWithin = '!..';

    /** @param float $low what is compared with, or where a range begins @param float $high where a range ends */
    public function holds(float $value, float $low, float $high): bool
    {
        return match ($this) {
            self::Is => $value === $low,
            self::IsNot => $value !== $low,
            self::Below => $value < $low,
            self::AtMost => $value <= $low,
            self::Above => $value > $low,
            self::AtLeast => $value >= $low,
            self::Within => $value >= $low && $value <= $high,
            self::NotWithin => $value < $low || $value > $high,
        };
    }
}
