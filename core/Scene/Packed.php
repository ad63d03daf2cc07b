<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Reading packed little-endian columns. */
final class Packed
{
    /** @return list<int> $count unsigned 32-bit numbers from byte $offset on */
    public static function uint32(string $packed, int $offset, int $count): array
    {
        if ($count === 0) {
            return [];
        }
        /** @var array<int, int>|false $numbers */
        $numbers = unpack('V'.$count, $packed, $offset);
        if ($numbers === false) {
            throw new \OutOfBoundsException("The packed column ends before $count numbers at byte $offset.");
        }

        return array_values($numbers);
    }

    /** The number at $index of a column of unsigned 32-bit numbers. */
    public static function uint32At(string $packed, int $index): int
    {
        $at = $index * 4;

        return ord($packed[$at]) | (ord($packed[$at + 1]) << 8) | (ord($packed[$at + 2]) << 16) | (ord($packed[$at + 3]) << 24);
    }

    /** The number at $index of a column of unsigned 64-bit numbers. */
    public static function uint64At(string $packed, int $index): int
    {
        $at = $index * 8;

        return ord($packed[$at]) |
            (ord($packed[$at + 1]) << 8) |
            (ord($packed[$at + 2]) << 16) |
            (ord($packed[$at + 3]) << 24) |
            (ord($packed[$at + 4]) << 32) |
            (ord($packed[$at + 5]) << 40) |
            (ord($packed[$at + 6]) << 48) |
            (ord($packed[$at + 7]) << 56);
    }

    /** @return list<float> $count doubles from byte $offset on */
    public static function float64(string $packed, int $offset, int $count): array
    {
        if ($count === 0) {
            return [];
        }
        /** @var array<int, float>|false $numbers */
        $numbers = unpack('e'.$count, $packed, $offset);
        if ($numbers === false) {
            throw new \OutOfBoundsException("The packed column ends before $count doubles at byte $offset.");
        }

        return array_values($numbers);
    }

    /** @return list<float> $count 32-bit floats from byte $offset on */
    public static function float32(string $packed, int $offset, int $count): array
    {
        if ($count === 0) {
            return [];
        }
        /** @var array<int, float>|false $numbers */
        $numbers = unpack('g'.$count, $packed, $offset);
        if ($numbers === false) {
            throw new \OutOfBoundsException("The packed column ends before $count floats at byte $offset.");
        }

        return array_values($numbers);
    }
}
