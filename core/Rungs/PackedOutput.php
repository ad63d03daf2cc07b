<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/**
 * Output settings as bytes, deflated: for layers, tags and folders each how many, numbers and values; then for each value of objects the
 * value, how many bytes, and one bit per object number. Objects that are held alone have 128 added to their rung; what is held right under
 * layers comes last: 255, how many bytes, numbers and rungs.
 */
final readonly class PackedOutput
{
    private const ALONE = 128;

    private const LAYERS_ALONE = 255;

    public static function of(OutputSettings $settings): string
    {
        $raw = '';
        foreach ([$settings->layers, $settings->tags, $settings->folders] as $values) {
            $raw .= pack('V', count($values)).self::written($values);
        }
        foreach ([0 => $settings->objects, self::ALONE => $settings->objectsAlone] as $more => $objects) {
            foreach ($objects as $value => $numbers) {
                $bytes = rtrim($numbers->bytes, "\0");
                $raw .= pack('CV', $value + $more, strlen($bytes)).$bytes;
            }
        }
        if ($settings->layersAlone !== []) {
            $raw .= pack('CV', self::LAYERS_ALONE, 5 * count($settings->layersAlone)).self::written($settings->layersAlone);
        }

        return (string) gzdeflate($raw, 1);
    }

    public static function read(string $packed): OutputSettings
    {
        $raw = $packed === '' ? '' : (string) gzinflate($packed);
        $values = [[], [], [], []];
        $objects = [[], []];
        $at = 0;
        for ($what = 0; $what < 3 && $at + 4 <= strlen($raw); $what++, $at += 4 + 5 * $count) {
            [$count] = Packed::uint32($raw, $at, 1);
            $values[$what] = self::values($raw, $at + 4, $count);
        }
        for (; $at + 5 <= strlen($raw); $at += 5 + $size) {
            [$size] = Packed::uint32($raw, $at + 1, 1);
            $value = ord($raw[$at]);
            if ($value === self::LAYERS_ALONE) {
                $values[3] = self::values($raw, $at + 5, intdiv($size, 5));
            } else {
                $bits = Bits::ofBytes(($size << 3) - 1, substr($raw, $at + 5, $size));
                $objects[$value < self::ALONE ? 0 : 1][$value % self::ALONE] = $bits;
            }
        }

        return new OutputSettings($values[0], $values[1], $values[2], $objects[0], $values[3], $objects[1]);
    }

    /** @param array<int, int> $values */
    private static function written(array $values): string
    {
        return $values === [] ? '' : pack('V*', ...array_keys($values)).pack('C*', ...array_values($values));
    }

    /** @return array<int, int> values by number */
    private static function values(string $raw, int $at, int $count): array
    {
        /** @var array<int, int> $read */
        $read = $count === 0 ? [] : unpack('C'.$count, $raw, $at + 4 * $count);

        return $count === 0 ? [] : array_combine(Packed::uint32($raw, $at, $count), $read);
    }
}
