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
        $members = self::members($organizers, $key);
        if ($members === []) {
            return [$settings, null];
        }
        $at = $way > 0 ? -1 : 0;
        foreach ($members as $index => $member) {
            if (self::rung($settings, $member) !== Rung::Hidden) {
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

    /**
     * The settings with only the first of those members of a folder or layer shown that are.
     *
     * @param string $key "F3" for a folder of tags, "L5" for a layer
     *
     * @return array{Settings, string|null, int} and the key of the one that stays, null where at most one is shown; how many are hidden
     */
    public static function first(Settings $settings, Organizers $organizers, string $key): array
    {
        $shown = array_values(
            array_filter(
                self::members($organizers, $key),
                static fn (string $member): bool => self::rung($settings, $member) !== Rung::Hidden,
            ),
        );

        return count($shown) < 2
            ? [$settings, null, 0]
            : [self::hidden($settings, array_slice($shown, 1)), $shown[0], count($shown) - 1];
    }

    /**
     * Those that stay where several of what is shown one at a time were to be shown at once.
     *
     * @param Settings  $now     as {@see shown()} has left them
     * @param list<int> $layers  numbers of the layers that were set
     * @param list<int> $tags    of the tags
     * @param list<int> $folders of the folders of tags
     *
     * @return list<string> "L7", "M4" or "F5"
     */
    public static function staying(Settings $now, Organizers $organizers, array $layers, array $tags, array $folders): array
    {
        $inside = [];
        foreach ($layers as $layer) {
            $inside['L'.$organizers->layers->get($layer)->parent][] = "L$layer";
        }
        foreach ($tags as $tag) {
            $inside['F'.$organizers->tags->get($tag)->folder][] = "M$tag";
        }
        foreach ($folders as $folder) {
            $inside['F'.$organizers->tags->folder($folder)->parent][] = "F$folder";
        }
        $staying = [];
        foreach ($inside as $holder => $members) {
            $number = (int) substr($holder, 1);
            $of = match (true) {
                $number === 0 => null,
                $holder[0] === 'L' => $organizers->layers->get($number),
                default => $organizers->tags->folder($number),
            };
            $shown = array_filter($members, static fn (string $member): bool => self::rung($now, $member) !== Rung::Hidden);
            if ($of?->oneAtATime === true && count($members) > 1 && count($shown) === 1) {
                $staying[] = current($shown);
            }
        }

        return $staying;
    }

    /** @return list<string> "L7", "M4" or "F5", in the order of the rows */
    private static function members(Organizers $organizers, string $key): array
    {
        $number = (int) substr($key, 1);

        return $key[0] === 'L'
            ? array_map(static fn (int $layer): string => "L$layer", $organizers->layers->inside($number))
            : $organizers->tags->tree->inside($number);
    }

    /** @param string $member "L7", "M4" or "F5" */
    private static function rung(Settings $settings, string $member): ?Rung
    {
        $number = (int) substr($member, 1);

        return match ($member[0]) {
            'L' => $settings->layer($number),
            'M' => $settings->tag($number),
            default => $settings->folder($number),
        };
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
