<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Facts\Derived\Family;
use VineShelf\Scene\MissingColumn;
use VineShelf\Scene\Scene;

/** Columns of a scene index that follow from others, by families; each says itself what it needs and how it is made. */
final class Derived
{
    /** What rules and sorting are known to ask for, beside what each measure is asked for. */
    private const USUAL = [
        'box',
        'place',
        'near',
        'blocks.64',
        'blocks.8',
        'blocks.1',
        'drawn',
        'instances',
        'depths',
        'planes.triangles',
        'planes.placements',
        'planes.vertices',
        'planes.calls',
        'planes.bytes',
        'bits.groups',
        'bits.unnamed',
        'bits.material',
        'bits.textures',
        'bits.shared',
        'ranked.kind',
        'ranked.class',
        'ranked.surfaces',
        'ranked.mesh',
        'ranked.stem',
        'tally.layer',
        'tally.kind',
        'tally.kindclass',
        'tally.surfaces',
        'tally.source',
        'order.name.up',
    ];

    /** Whether there can be such a column. */
    public static function has(string $name): bool
    {
        [$family, $of] = self::split($name);

        return $family !== null && $family->has($of);
    }

    /** @return list<string> the columns that it follows from; these may be derived themselves */
    public static function needs(string $name): array
    {
        [$family, $of] = self::split($name);

        return $family === null || ! $family->has($of) ? throw MissingColumn::named($name) : $family->needs($of);
    }

    /** @return string the packed column */
    public static function make(Scene $scene, string $name): string
    {
        [$family, $of] = self::split($name);

        return $family === null || ! $family->has($of) ? throw MissingColumn::named($name) : $family->make($scene, $of);
    }

    /** @return list<string> what is worth working out before anybody asks for it */
    public static function usual(): array
    {
        $ranked = array_map(static fn (Measure $measure): string => "ranked.$measure->value", Measure::cases());
        $orders = array_map(static fn (Measure $measure): string => "order.$measure->value.down", Measure::cases());

        return [...self::USUAL, ...$ranked, ...$orders];
    }

    /** @return array{Family|null, string} */
    private static function split(string $name): array
    {
        /** @var array<string, Family> $families */
        static $families = [];
        if ($families === []) {
            $all = [
                new Derived\Bounds,
                new Derived\Boxes,
                new Derived\Places,
                new Derived\Near,
                new Derived\Blocks,
                new Derived\DrawnColumn,
                new Derived\Instances,
                new Derived\Depths,
                new Derived\Stems,
                new Derived\RankedColumns,
                new Derived\BitColumns,
                new Derived\PlaneColumns,
                new Derived\Orders,
                new Derived\Tallies,
            ];
            foreach ($all as $family) {
                $families[$family->name()] = $family;
            }
        }
        $parts = explode('.', $name, 2);

        return [$families[$parts[0]] ?? null, $parts[1] ?? ''];
    }
}
