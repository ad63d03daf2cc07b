<?php

declare(strict_types=1);

namespace App\SortingRules;

use App\Bench\Bench;
use VineShelf\Folders\Folder;
use VineShelf\Layers\Layer;

/** What layers and tags are called from the top down, as people write it: "Stands / Seats". */
final class Paths
{
    /** Null when there is no such layer. */
    public static function layer(Bench $bench, int $number): ?string
    {
        return $bench->layers()->has($number) ? implode(' / ', self::layerNames($bench, $number)) : null;
    }

    /** @return list<string> */
    public static function layerNames(Bench $bench, int $number): array
    {
        return array_map(static fn (Layer $layer): string => $layer->name, array_reverse($bench->layers()->chain($number)));
    }

    /** Null when there is no such tag. */
    public static function tag(Bench $bench, int $number): ?string
    {
        return $bench->tags()->has($number) ? implode(' / ', self::tagNames($bench, $number)) : null;
    }

    /** @return list<string> */
    public static function tagNames(Bench $bench, int $number): array
    {
        $tag = $bench->tags()->get($number);
        $above = array_map(static fn (Folder $folder): string => $folder->name, array_reverse($bench->tags()->tree->chain($tag->folder)));

        return [...$above, $tag->name];
    }
}
