<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Organizers\Organizers;

/** Layers and folders whose members are shown one at a time: showing one hides its siblings. */
final class OneAtATime
{
    /**
     * Settings in which some rows were just set, with the siblings hidden of those that are shown. Of several siblings the first stays
     * shown.
     *
     * @param list<int> $layers  numbers of the layers that were set
     * @param list<int> $tags    of the tags
     * @param list<int> $folders of the folders of tags
     */
    public static function shown(Settings $settings, Organizers $organizers, array $layers, array $tags, array $folders): Settings
    {
        $done = [];
        foreach ($layers as $layer) {
            $parent = $organizers->layers->get($layer)->parent;
            if ($parent === 0 || isset($done["L$parent"]) || ! $organizers->layers->get($parent)->oneAtATime) {
                continue;
            }
            if ($settings->layer($layer) !== Rung::Hidden) {
                $done["L$parent"] = true;
                $settings = $settings->withLayers(array_diff($organizers->layers->inside($parent), [$layer]), Rung::Hidden);
            }
        }
        foreach (['M' => $tags, 'F' => $folders] as $letter => $numbers) {
            foreach ($numbers as $number) {
                $parent = $letter === 'M' ? $organizers->tags->get($number)->folder : $organizers->tags->folder($number)->parent;
                if ($parent === 0 || isset($done["F$parent"]) || ! $organizers->tags->folder($parent)->oneAtATime) {
                    continue;
                }
                if (($letter === 'M' ? $settings->tag($number) : $settings->folder($number)) !== Rung::Hidden) {
                    $done["F$parent"] = true;
                    $settings = self::hidden($settings, array_diff($organizers->tags->tree->inside($parent), [$letter.$number]));
                }
            }
        }

        return $settings;
    }

    /**
     * The settings with the next member of a folder or layer shown instead of the one that is, the first after the last.
     *
     * @param string $key "F3" for a folder of tags, "L5" for a layer
     * @param int    $way 1 for the next, -1 for the one before
     *
     * @return array{Settings, string|null} and the key of the member that is shown then, "L7", "M4" or "F5"; null when it has none
     */
    public static function next(Settings $settings, Organizers $organizers, string $key, int $way): array
    {
        $number = (int) substr($key, 1);
        $members =
            $key[0] === 'L'
                ? array_map(static fn (int $layer): string => "L$layer", $organizers->layers->inside($number))
                : $organizers->tags->tree->inside($number);
        if ($members === []) {
            return [$settings, null];
        }
        $rung = static fn (string $member): ?Rung => match ($member[0]) {
            'L' => $settings->layer((int) substr($member, 1)),
            'M' => $settings->tag((int) substr($member, 1)),
            default => $settings->folder((int) substr($member, 1)),
        };
        $at = $way > 0 ? -1 : 0;
        foreach ($members as $index => $member) {
            if ($rung($member) !== Rung::Hidden) {
                $at = $index;
                break;
            }
        }
        $next = $members[($at + $way + count($members)) % count($members)];
        $settings = self::hidden($settings, array_diff($members, [$next]));
        $one = [(int) substr($next, 1)];

        return [
            match ($next[0]) {
                'L' => $settings->withLayers($one, Rung::Full),
                'M' => $settings->withTags($one, Rung::Full),
                default => $settings->withFolders($one, Rung::Full),
            },
            $next,
        ];
    }

    /** @param array<string> $members "L7", "M4" or "F5" */
    private static function hidden(Settings $settings, array $members): Settings
    {
        $numbers = static fn (string $letter): array => array_map(
            static fn (string $member): int => (int) substr($member, 1),
            array_filter($members, static fn (string $member): bool => $member[0] === $letter),
        );

        return $settings
            ->withLayers($numbers('L'), Rung::Hidden)
            ->withTags($numbers('M'), Rung::Hidden)
            ->withFolders($numbers('F'), Rung::Hidden);
    }
}
