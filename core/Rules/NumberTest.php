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
}
