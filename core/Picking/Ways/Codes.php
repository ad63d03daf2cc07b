<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Scene\Bits;

/** The different values that a pick has of something. */
final class Codes
{
    /**
     * @param callable(int): int $code of a row
     *
     * @return list<int>
     */
    public static function of(Bits $pick, callable $code): array
    {
        $codes = [];
        foreach ($pick->rows() as $row) {
            $codes[$code($row)] = true;
        }

        return array_keys($codes);
    }
}
