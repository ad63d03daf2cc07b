<?php

declare(strict_types=1);

namespace VineShelf\Rules;

enum Relation: string
{
    case Inside = 'inside';
    case Holding = 'holding';
    case Beside = 'beside';

    public function meaning(): string
    {
        return match ($this) {
            self::Inside => 'objects below those that the rule in parentheses picks, at any depth',
            self::Holding => 'objects above those that the rule in parentheses picks',
            self::Beside => 'objects under the same parent as those that the rule in parentheses picks',
        };
    }
}
