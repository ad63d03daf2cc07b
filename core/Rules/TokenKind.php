<?php

declare(strict_types=1);

namespace VineShelf\Rules;

enum TokenKind
{
    case Word;
    case Quoted;
    case Operator;
    case Open;
    case Close;
    case End;
}
