<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Packed;

/**
 * Output settings as bytes, deflated: for layers, tags and folders each how many, numbers and values; then for each value of objects the
 * value, how many bytes, and one bit per object number. Objects that are held alone have 128 added to their rung; what is held right under
 * layers comes last: 255, how many bytes, numbers and rungs.
 */
final readonly class PackedOutput
{
    private const LAYERS_ALONE = 255;

    public static function of(OutputSettings $settings): string
    {
        $raw = '';
        foreach ([$settings->layers, $settings->tags, $settings->folders] as $values) {
            $raw .= pack('V', count($values)).PackedByNumber::values($values);
        }
        $raw .= PackedByNumber::sets($settings->objects, $settings->objectsAlone);
        if ($settings->layersAlone !== []) {
            $raw .= pack('CV', self::LAYERS_ALONE, 5 * count($settings->layersAlone)).PackedByNumber::values($settings->layersAlone);
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
            $values[$what] = PackedByNumber::readValues($raw, $at + 4, $count);
        }
        for (; $at + 5 <= strlen($raw); $at += 5 + $size) {
            [$size] = Packed::uint32($raw, $at + 1, 1);
            $value = ord($raw[$at]);
            if ($value === self::LAYERS_ALONE) {
                $values[3] = PackedByNumber::readValues($raw, $at + 5, intdiv($size, 5));
            } else {
                $objects = PackedByNumber::withSet($objects, $value, substr($raw, $at + 5, $size));
            }
        }

        return new OutputSettings($values[0], $values[1], $values[2], $objects[0], $values[3], $objects[1]);
    }
}
