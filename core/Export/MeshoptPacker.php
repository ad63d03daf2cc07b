<?php

declare(strict_types=1);

namespace VineShelf\Export;

/** Compresses buffer views as the glTF extension EXT_meshopt_compression describes: vertex attributes, and lists of indices. */
final class MeshoptPacker
{
    /**
     * @param string $bytes  so many elements of $stride bytes
     * @param int    $stride a multiple of 4, up to 256
     *
     * @return string for the mode ATTRIBUTES
     */
    public static function attributes(string $bytes, int $stride): string
    {
        $count = intdiv(strlen($bytes), $stride);
        /** @var array<int, int> $n from 1 on */
        $n = $bytes === '' ? [] : unpack('C*', $bytes);
        $perBlock = min(intdiv(8192, $stride) & ~15, 256);
        $packed = "\xa0";
        $last = [];
        for ($byte = 1; $byte <= $stride; $byte++) {
            $last[] = $n[$byte] ?? 0;
        }
        $first = $last;
        for ($done = 0; $done < $count; $done += $perBlock) {
            $elements = min($perBlock, $count - $done);
            for ($byte = 0; $byte < $stride; $byte++) {
                $deltas = [];
                $value = $last[$byte];
                for ($element = 0, $at = $done * $stride + $byte + 1; $element < $elements; $element++, $at += $stride) {
                    $delta = ($n[$at] - $value) & 255;
                    $deltas[] = $delta < 128 ? $delta << 1 : ((255 - $delta) << 1) | 1;
                    $value = $n[$at];
                }
                $last[$byte] = $value;
                $packed .= self::groups($deltas);
            }
        }
        $tail = pack('C*', ...$first);

        return $packed.str_repeat("\0", max(0, 32 - $stride)).$tail;
    }

    /** @param list<int> $indices @return string for the mode INDICES */
    public static function indices(array $indices): string
    {
        $packed = "\xd1";
        $last = [0, 0];
        $which = 0;
        foreach ($indices as $index) {
            // What is nearer to the one of the two lines that the indices follow is told from there.
            $which = abs($index - $last[0]) <= abs($index - $last[1]) ? 0 : 1;
            $delta = $index - $last[$which];
            $last[$which] = $index;
            $value = (($delta < 0 ? (-$delta << 1) - 1 : $delta << 1) << 1) | $which;
            do {
                $packed .= chr(($value & 127) | ($value > 127 ? 128 : 0));
                $value >>= 7;
            } while ($value > 0);
        }

        return $packed."\0\0\0\0";
    }

    /** @param list<int> $deltas a byte each */
    private static function groups(array $deltas): string
    {
        $header = [];
        $body = '';
        foreach (array_chunk($deltas, 16) as $group) {
            $group = array_pad($group, 16, 0);
            $choices = [
                0 => max($group) === 0 ? '' : null,
                1 => self::bits($group, 2),
                2 => self::bits($group, 4),
                3 => pack('C*', ...$group),
            ];
            $best = 3;
            foreach ($choices as $choice => $bytes) {
                if ($bytes !== null && strlen($bytes) < strlen((string) $choices[$best])) {
                    $best = $choice;
                }
            }
            $header[] = $best;
            $body .= $choices[$best];
        }
        $packed = '';
        foreach (array_chunk($header, 4) as $four) {
            $packed .= chr($four[0] | (($four[1] ?? 0) << 2) | (($four[2] ?? 0) << 4) | (($four[3] ?? 0) << 6));
        }

        return $packed.$body;
    }

    /** @param array<int, int> $group sixteen, with so many bits each; those that are too large follow behind */
    private static function bits(array $group, int $bits): string
    {
        $most = (1 << $bits) - 1;
        $packed = $more = '';
        foreach (array_chunk($group, $bits === 2 ? 4 : 2) as $some) {
            $byte = 0;
            foreach ($some as $value) {
                $byte = ($byte << $bits) | min($most, $value);
                $more .= $value >= $most ? chr($value) : '';
            }
            $packed .= chr($byte);
        }

        return $packed.$more;
    }
}
