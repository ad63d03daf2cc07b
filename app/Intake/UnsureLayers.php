<?php

declare(strict_types=1);

namespace App\Intake;

use App\Bench\Bench;
use App\Models\Import;
use App\Models\Source;
use VineShelf\Layers\Layer;

/** Layers of a file that got layers of their own, because several that were there before are called so. */
final class UnsureLayers
{
    /** @return list<array{Layer, array<int, Layer>}> those that are still there, each with those that may be meant, by number */
    public static function of(Bench $bench, Source $source): array
    {
        $layers = $bench->layers();
        $unsure = [];
        foreach (self::noted($source) as ['layer' => $number, 'among' => $among]) {
            $there = array_values(array_filter($among, $layers->has(...)));
            if ($layers->has($number) && $there !== []) {
                $unsure[] = [$layers->get($number), array_combine($there, array_map($layers->get(...), $there))];
            }
        }

        return $unsure;
    }

    /** Where somebody is asked about the layers of a file, below the address of its project; null where there is nothing to ask. */
    public static function address(Import $import): ?string
    {
        $source = $import->source_id === null ? null : Source::query()->find($import->source_id);

        return $source === null || self::noted($source) === [] ? null : "/sources/$source->id/unsure";
    }

    /** @return list<array{layer: int, among: list<int>}> */
    private static function noted(Source $source): array
    {
        /** @var list<array{layer: int, among: list<int>}> */
        return $source->report['unsure'] ?? [];
    }
}
