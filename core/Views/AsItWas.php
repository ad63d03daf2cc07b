<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Scene;

/**
 * Settings under which every object is at the rung that it was at, however it is sorted now: layers, tags and folders that hold something
 * below that are raised, and what else they held is held alone.
 */
final class AsItWas
{
    private const FULL = Rung::Full->value;

    /**
     * @param Scene  $scene   as it is now
     * @param Levels $was     rung of every row
     * @param Bits   $counted rows that this is about; the others go with what they belong to
     */
    public static function settings(Settings $settings, Scene $scene, Organizers $organizers, Levels $was, Bits $counted): Settings
    {
        foreach ($organizers->layers->walk() as [$layer]) {
            $own = $settings->layers[$layer->number] ?? self::FULL;
            $nested = array_fill_keys($organizers->layers->withNested($layer->number), true);
            $most = $own === self::FULL ? $own : self::most($was, $scene->layers()->rowsOf($nested)->and($counted));
            if ($most > $own) {
                $settings = Holding::raised($settings, $organizers->layers, $layer->number, $most);
            }
            $alone = $settings->layersAlone[$layer->number] ?? self::FULL;
            $most =
                $alone === self::FULL
                    ? $alone
                    : self::most(
                        $was,
                        $scene
                            ->layers()
                            ->rowsOf([$layer->number => true])
                            ->and($counted),
                    );
            if ($most > $alone) {
                $settings = $settings->withLayersAlone([$layer->number], $most === self::FULL ? null : Rung::from($most));
            }
        }
        $settings = self::tags($settings, $scene, $organizers, $was, $counted);
        $settings = self::withoutHigher($settings, $scene, $was, $counted);
        $now = (new InEffect($scene, $organizers, $settings))->rungs();
        for ($rung = 0; $rung < self::FULL; $rung++) {
            $rows = $was->being($rung)->and($counted)->without($now->being($rung));
            $settings = $rows->isEmpty() ? $settings : $settings->withObjectsAlone($scene->numberBits($rows), Rung::from($rung));
        }

        return $settings;
    }

    private static function tags(Settings $settings, Scene $scene, Organizers $organizers, Levels $was, Bits $counted): Settings
    {
        foreach ($organizers->tags->all() as $tag) {
            $chain = array_map(static fn ($folder): int => $folder->number, $organizers->tags->tree->chain($tag->folder));
            $own = min(
                $settings->tags[$tag->number] ?? self::FULL,
                self::FULL,
                ...array_map(static fn (int $folder): int => $settings->folders[$folder] ?? self::FULL, $chain),
            );
            $most = $own === self::FULL ? $own : self::most($was, $scene->tagged($tag->number)->and($counted));
            if ($most <= $own) {
                continue;
            }
            foreach (array_reverse($chain) as $folder) {
                $held = $settings->folders[$folder] ?? self::FULL;
                $settings = $held < $most ? self::raisedFolder($settings, $organizers, $folder, $most) : $settings;
            }
            if (($settings->tags[$tag->number] ?? self::FULL) < $most) {
                $settings = $settings->withTags([$tag->number], $most === self::FULL ? null : Rung::from($most));
            }
        }

        return $settings;
    }

    /** A folder of tags is raised, and all that lies in it is lowered to what it was at instead. */
    private static function raisedFolder(Settings $settings, Organizers $organizers, int $number, int $to): Settings
    {
        $held = $settings->folders[$number] ?? self::FULL;
        foreach ($organizers->tags->tree->inside($number) as $key) {
            $inside = (int) substr($key, 1);
            $settings =
                $key[0] === 'M'
                    ? $settings->withTags([$inside], Rung::from(min($held, $settings->tags[$inside] ?? self::FULL)))
                    : $settings->withFolders([$inside], Rung::from(min($held, $settings->folders[$inside] ?? self::FULL)));
        }

        return $settings->withFolders([$number], $to === self::FULL ? null : Rung::from($to));
    }

    /** Objects that are held alone below what they were at no longer are. */
    private static function withoutHigher(Settings $settings, Scene $scene, Levels $was, Bits $counted): Settings
    {
        foreach ($settings->objectsAlone as $rung => $numbers) {
            $rows = $scene->rowBits($numbers)->and($counted)->and($was->atLeast($rung + 1));
            $settings = $rows->isEmpty() ? $settings : $settings->withObjectsAlone($scene->numberBits($rows), null);
        }

        return $settings;
    }

    private static function most(Levels $was, Bits $rows): int
    {
        $steps = array_keys($was->histogramOf($rows));

        return $steps === [] ? 0 : max($steps);
    }
}
