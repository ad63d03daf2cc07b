<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Packed;

/**
 * Settings as bytes, deflated: version and ceiling; for layers, tags, folders and layers alone each how many, their numbers and rungs; then
 * for each rung of objects, and for each of objects alone: rung, 128 more for alone, bytes, one bit per object number.
 */
final readonly class PackedSettings
{
    private const VERSION = 5;

    public static function of(Settings $settings): string
    {
        $raw = pack('CC', self::VERSION, $settings->ceiling);
        foreach ([$settings->layers, $settings->tags, $settings->folders, $settings->layersAlone] as $rungs) {
            $raw .= pack('V', count($rungs)).PackedByNumber::values($rungs);
        }

        return (string) gzdeflate($raw.PackedByNumber::sets($settings->objects, $settings->objectsAlone), 1);
    }

    public static function read(string $packed): Settings
    {
        $raw = $packed === '' ? false : @gzinflate($packed);
        if ($raw === false || strlen($raw) < 5) {
            return new Settings;
        }
        $version = ord($raw[0]);
        if ($version === 1) {
            return self::firstVersion($raw);
        }
        $rungs = [[], [], [], []];
        $at = $version < 4 ? 1 : 2;
        // Layers came first, then tags and folders, then layers alone.
        for ($what = 0, $lists = $version === 2 ? 1 : ($version < 5 ? 3 : 4); $what < $lists; $what++, $at += 4 + 5 * $count) {
            [$count] = Packed::uint32($raw, $at, 1);
            $rungs[$what] = PackedByNumber::readValues($raw, $at + 4, $count);
        }
        $objects = [[], []];
        for (; $at + 5 <= strlen($raw); $at += 5 + $size) {
            [$size] = Packed::uint32($raw, $at + 1, 1);
            $objects = PackedByNumber::withSet($objects, ord($raw[$at]), substr($raw, $at + 5, $size));
        }

        return new Settings(
            $rungs[0],
            $objects[0],
            $rungs[1],
            $rungs[2],
            $version < 4 ? Rung::Full->value : ord($raw[1]),
            $rungs[3],
            $objects[1],
        );
    }

    /** As they were kept first: counts, then numbers and rungs of layers and of objects. */
    private static function firstVersion(string $raw): Settings
    {
        [$layers, $objects] = Packed::uint32($raw, 1, 2);

        return Settings::of(PackedByNumber::readValues($raw, 9, $layers), PackedByNumber::readValues($raw, 9 + 5 * $layers, $objects));
    }
}
