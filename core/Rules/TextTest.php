<?php

declare(strict_types=1);

namespace VineShelf\Rules;

enum TextTest: string
{
    case Has = ':';
    case Is = '=';
    case IsNot = '!=';
}
