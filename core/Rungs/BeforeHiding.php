<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;

/**
 * What rows had set before they were hidden, so that showing them again gives it back. It is kept as settings beside those in force: only
 * rows that are hidden by their own setting are in it, and of these only those that had another one set.
 */
final class BeforeHiding
{
    /**
     * What is to be remembered once settings have changed.
     *
     * @param Settings $known  what was remembered before the change
     * @param Settings $before the change
     * @param Settings $after  the change
     */
    public static function following(Settings $known, Settings $before, Settings $after): Settings
    {
        $hidden = Rung::Hidden->value;
        $objects = [];
        $now = $after->objects[$hidden] ?? Bits::none(0);
        if (! $now->isEmpty()) {
            $already = $now->shared($before->objects[$hidden] ?? Bits::none(0));
            for ($rung = Rung::Box->value; $rung <= Rung::Full->value; $rung++) {
                $had = ($before->objects[$rung] ?? Bits::none(0))->shared($now)
                    ->with(($known->objects[$rung] ?? Bits::none(0))->shared($already));
                if (! $had->isEmpty()) {
                    $objects[$rung] = $had;
                }
            }
        }

        return new Settings(
            self::rungs($known->layers, $before->layers, $after->layers),
            $objects,
            self::rungs($known->tags, $before->tags, $after->tags),
            self::rungs($known->folders, $before->folders, $after->folders),
        );
    }

    /**
     * Settings in which rows that are hidden by their own setting have again what they had; other rows keep what they have.
     *
     * @param Settings $known as {@see following()} has it
     */
    public static function givenBack(Settings $now, Rows $rows, Settings $known): Settings
    {
        foreach ($rows->layers as $layer) {
            if ($now->layer($layer) === Rung::Hidden || $now->layerAlone($layer) === Rung::Hidden) {
                $now = $now->withLayers([$layer], $known->layer($layer));
            }
        }
        foreach ($rows->tags as $tag) {
            $now = $now->tag($tag) === Rung::Hidden ? $now->withTags([$tag], $known->tag($tag)) : $now;
        }
        foreach ($rows->folders as $folder) {
            $now = $now->folder($folder) === Rung::Hidden ? $now->withFolders([$folder], $known->folder($folder)) : $now;
        }
        $hidden = ($now->objects[Rung::Hidden->value] ?? Bits::none(0))->with($now->objectsAlone[Rung::Hidden->value] ?? Bits::none(0));
        $shown = $rows->objects->shared($hidden);
        if ($shown->isEmpty()) {
            return $now;
        }
        $now = $now->withObjects($shown, null);
        foreach ($known->objects as $rung => $numbers) {
            $now = $now->withObjects($numbers->shared($shown), Rung::from($rung));
        }

        return $now;
    }

    /**
     * @param array<int, int> $known
     * @param array<int, int> $before
     * @param array<int, int> $after
     *
     * @return array<int, int>
     */
    private static function rungs(array $known, array $before, array $after): array
    {
        $hidden = Rung::Hidden->value;
        $kept = [];
        foreach ($after as $number => $rung) {
            if ($rung === $hidden) {
                $had = ($before[$number] ?? null) === $hidden ? $known[$number] ?? null : $before[$number] ?? null;
                $kept += $had === null ? [] : [$number => $had];
            }
        }

        return $kept;
    }
}
