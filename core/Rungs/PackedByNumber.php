<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/** What settings have by number, as bytes: numbers and values of rows, and sets of objects, one for each value. */
final readonly class PackedByNumber
{
    /** Added to the rung of objects that are held alone. */
    private const ALONE = 128;

    /** @param array<int, int> $values 0 to 255 by number @return string numbers, four bytes each, then values, one byte each */
    public static function values(array $values): string
    {
        return $values === [] ? '' : pack('V*', ...array_keys($values)).pack('C*', ...array_values($values));
    }

    /** @return array<int, int> values by number */
    public static function readValues(string $raw, int $at, int $count): array
    {
        /** @var array<int, int>|false $read */
        $read = $count === 0 ? false : unpack('C'.$count, $raw, $at + 4 * $count);

        return $read === false ? [] : array_combine(Packed::uint32($raw, $at, $count), $read);
    }

    /**
     * @param array<int, Bits> $objects object numbers by value, 0 to 127
     * @param array<int, Bits> $alone   the same of objects alone
     *
     * @return string for each set its value, 128 more for objects alone, how many bytes, and one bit per object number
     */
    public static function sets(array $objects, array $alone): string
    {
        $raw = '';
        foreach ([0 => $objects, self::ALONE => $alone] as $more => $sets) {
            foreach ($sets as $value => $numbers) {
                $bytes = rtrim($numbers->bytes, "\0");
                $raw .= pack('CV', $value + $more, strlen($bytes)).$bytes;
            }
        }

        return $raw;
    }

    /**
     * @param array{array<int, Bits>, array<int, Bits>} $sets of objects, and of objects alone
     * @param int                                       $value as {@see sets()} wrote it
     *
     * @return array{array<int, Bits>, array<int, Bits>} with one more
     */
    public static function withSet(array $sets, int $value, string $bytes): array
    {
        $sets[$value < self::ALONE ? 0 : 1][$value % self::ALONE] = Bits::ofBytes((strlen($bytes) << 3) - 1, $bytes);

        return $sets;
    }
}
