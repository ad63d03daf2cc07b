<?php

declare(strict_types=1);

namespace VineShelf\Facts;

/** Rows sorted by what they are worth or called; rows that are equal keep their order in the scene, in both directions. */
final class Order
{
    /**
     * @param array<int, int|float|string> $values by row; rows without a value come last in both directions
     * @param int                          $count  rows in all
     *
     * @return list<int> rows
     */
    public static function by(array $values, int $count, bool $down): array
    {
        // PHP's sorts are stable.
        $flags = is_string(reset($values)) ? SORT_STRING : SORT_REGULAR;
        $down ? arsort($values, $flags) : asort($values, $flags);
        $rows = array_keys($values);
        if (count($rows) < $count) {
            for ($row = 1; $row <= $count; $row++) {
                if (! isset($values[$row])) {
                    $rows[] = $row;
                }
            }
        }

        return $rows;
    }

    /** What a name is sorted by: case does not matter, and numbers inside it count as numbers. */
    public static function sortKey(string $name): string
    {
        return (string) preg_replace_callback(
            '~\d+~',
            static fn (array $digits): string => str_pad(ltrim($digits[0], '0'), 12, '0', STR_PAD_LEFT),
            mb_strtolower($name),
        );
    }
}
