<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use VineShelf\Scene\Bits;

/** Numbers of objects or rows as one set. */
final class Numbers
{
    /** @param array<array-key, int> $numbers in any order */
    public static function of(array $numbers): Bits
    {
        sort($numbers);

        return Bits::ofRows($numbers === [] ? 0 : $numbers[count($numbers) - 1], $numbers);
    }
}
