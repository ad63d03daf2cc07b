<?php

declare(strict_types=1);

namespace App\Bench;

/** What scripts name, with folders of tags: "layer:Stands / Seats", "tag:Phases / First", "folder:Phases", "object:12". */
final class Named
{
    /** @throws Refused when there is nothing called so */
    public static function keys(Bench $bench, string $what): Keys
    {
        if (preg_match('~^object:(\d{1,9})$~D', $what, $found) === 1) {
            return $bench->scene()->row((int) $found[1]) > 0
                ? Keys::of(["O$found[1]"])
                : throw new Refused("There is no object $found[1] in the project.");
        }

        return Keys::of([self::row($bench, $what)->key()]);
    }

    /** @throws Refused when there is no layer, tag or folder called so */
    public static function row(Bench $bench, string $what): Organizer
    {
        if (preg_match('~^(layer|tag|folder):(.+)$~Ds', $what, $found) !== 1) {
            throw new Refused("“{$what}” names nothing: write layer:PATH, tag:PATH, folder:PATH or object:NUMBER.");
        }
        $row = null;
        $names = array_map(trim(...), explode(' / ', $found[2]));
        foreach ($names as $depth => $name) {
            $wanted = $found[1] === 'layer' ? 'layer' : ($depth === count($names) - 1 ? $found[1] : 'folder');
            $row =
                self::inside($bench, $wanted === 'layer' ? 'layers' : 'tags', $row, $wanted, $name) ??
                throw new Refused("There is no $found[1] $found[2].");
        }

        return $row;
    }

    private static function inside(Bench $bench, string $family, ?Organizer $in, string $what, string $name): ?Organizer
    {
        foreach (Organizer::inside($bench, $family, $in->number ?? 0) as $row) {
            if ($row->kind->word() === $what && mb_strtolower($row->name) === mb_strtolower($name)) {
                return $row;
            }
        }

        return null;
    }
}
