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

    /**
     * The numbers for which it holds. One that is so near to another that they count as equal is neither below nor above it.
     *
     * @param float $low      what is compared with, or where a range begins
     * @param float $high     where a range ends
     * @param float $nearLow  how far a number may be off the first to count as equal
     * @param float $nearHigh how far it may be off the second
     */
    public function span(float $low, float $high, float $nearLow = 0.0, float $nearHigh = 0.0): NumberSpan
    {
        return match ($this) {
            self::Is => new NumberSpan($low - $nearLow, $low + $nearLow),
            self::IsNot => new NumberSpan($low - $nearLow, $low + $nearLow, isOutside: true),
            self::Below => new NumberSpan(-INF, $low - $nearLow, withTo: false),
            self::AtMost => new NumberSpan(-INF, $low + $nearLow),
            self::Above => new NumberSpan($low + $nearLow, INF, withFrom: false),
            self::AtLeast => new NumberSpan($low - $nearLow, INF),
            self::Within => new NumberSpan($low - $nearLow, $high + $nearHigh),
            self::NotWithin => new NumberSpan($low - $nearLow, $high + $nearHigh, isOutside: true),
        };
    }
}
