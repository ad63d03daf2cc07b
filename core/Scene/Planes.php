<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * A column of whole numbers from 0 on, laid out for adding up any set of rows: plane k is the set of rows whose number has bit k, so the
 * sum over a set is each plane's count within it times 2^k. Twenty planes over 200,000 rows add up in under a millisecond, whatever the
 * set.
 *
 * Packed: length, number of planes, the planes as {@see Bits}.
 */
final readonly class Planes
{
    /** @param list<Bits> $planes */
    private function __construct(private array $planes) {}

    /** @param iterable<int> $numbers one per row, in row order */
    public static function pack(int $length, iterable $numbers): string
    {
        $planes = [];
        $row = 0;
        foreach ($numbers as $number) {
            $row++;
            for ($plane = 0; $number > 0; $number >>= 1, $plane++) {
                if (($number & 1) === 1) {
                    $planes[$plane] ??= str_repeat("\0", ($length >> 3) + 1);
                    $planes[$plane][$row >> 3] = chr(ord($planes[$plane][$row >> 3]) | (1 << ($row & 7)));
                }
            }
        }
        $count = $planes === [] ? 0 : max(array_keys($planes)) + 1;
        $packed = pack('VV', $length, $count);
        for ($plane = 0; $plane < $count; $plane++) {
            $packed .= $planes[$plane] ?? str_repeat("\0", ($length >> 3) + 1);
        }

        return $packed;
    }

    public static function unpack(string $packed): self
    {
        [$length, $count] = Packed::uint32($packed, 0, 2);
        $size = ($length >> 3) + 1;
        $planes = [];
        for ($plane = 0; $plane < $count; $plane++) {
            $planes[] = Bits::ofBytes($length, substr($packed, 8 + $plane * $size, $size));
        }

        return new self($planes);
    }

    /** @return list<Bits> the rows whose number has each bit, from the lowest on */
    public function all(): array
    {
        return $this->planes;
    }

    /** The sum over the rows of a set. */
    public function sum(Bits $rows): int
    {
        $sum = 0;
        foreach ($this->planes as $plane => $bits) {
            $sum += $bits->and($rows)->count() << $plane;
        }

        return $sum;
    }
}
