<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Geometry\Box;
use VineShelf\Scene\Bits;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * Columns that follow from others:
 *
 * | column          | what                                                                              |
 * |-----------------|-----------------------------------------------------------------------------------|
 * | box             | six 32-bit floats per row: least and greatest x, y, z of it and what it holds, from the origin |
 * | blocks          | six 32-bit floats: the box around what rows 0 to 63 draw, 64 to 127, and so on    |
 * | instances       | uint32 per row: how often its mesh is drawn in the project                        |
 * | depths          | uint32 per row: how deep it is nested, 1 for a root                               |
 * | ranked.C        | {@see Ranked}, of a measure, kind, mesh, class, surfaces or property.N (its codes) |
 * | ranked.number.N | {@see Ranked}, of the numbers that property N has                                 |
 * | bits.W          | {@see Bits}: groups, unnamed, or has material, textures, properties               |
 * | order.C.up/down | {@see Ordered}, by a measure, name, kind, class, material, source or property.N       |
 * | tally.C         | {@see Tally} of layer, source, kind, class, surfaces, or kind and class           |
 */
final class Derived
{
    /** Rows that one of the "blocks" is around. */
    public const BLOCK = 64;

    /** @return string|null null when there is no such column */
    public static function column(Scene $scene, string $name): ?string
    {
        $parts = explode('.', $name, 2);

        return match ($parts[0]) {
            'box' => self::boxes($scene),
            'blocks' => self::blocks($scene),
            'instances' => self::instances($scene),
            'depths' => self::depths($scene),
            'ranked' => isset($parts[1]) ? Ranked::pack(self::ranks($scene, $parts[1]), $scene->count()) : null,
            'bits' => isset($parts[1]) ? self::bits($scene, $parts[1])->bytes : null,
            'tally' => isset($parts[1]) ? Tally::pack($scene, $parts[1]) : null,
            'order' => isset($parts[1]) ? self::order($scene, $parts[1]) : null,
            default => null,
        };
    }

    /** @return array<int, int|float> by row */
    private static function ranks(Scene $scene, string $column): array
    {
        if (Measure::tryFrom($column) !== null) {
            return self::numbers($scene, $column);
        }
        if (str_starts_with($column, 'number.')) {
            return self::numbers($scene, 'property.'.substr($column, 7));
        }
        $codes = self::codes($scene, $column);
        unset($codes[0]);

        return $column === 'kind' ? $codes : array_filter($codes);
    }

    private static function bits(Scene $scene, string $which): Bits
    {
        $facts = new Facts($scene);
        $count = $scene->count();
        if ($which === 'groups') {
            return Bits::ofRows($count, $scene->groups());
        }
        if ($which === 'unnamed') {
            $rows = [];
            foreach (explode("\n", $scene->column('names')) as $row => $name) {
                if ($name === '' && $row > 0 && $row <= $count) {
                    $rows[] = $row;
                }
            }

            return Bits::ofRows($count, $rows);
        }
        if ($which === 'properties') {
            $rows = Bits::none($count);
            foreach ($facts->properties() as [$index]) {
                $rows = $rows->or($facts->ranked("property.$index")->present());
            }

            return $rows;
        }
        $codes = array_keys(array_filter($facts->surfaceLists(), static fn (array $list): bool => $which === 'material' ? $list !== []
            : array_filter($list, static fn (int $material): bool => $facts->materials()[$material][1] ?? false) !== []));

        return $facts->ranked('surfaces')->in($codes);
    }

    private static function order(Scene $scene, string $name): string
    {
        $down = str_ends_with($name, '.down');
        $by = substr($name, 0, (int) strrpos($name, '.'));

        return Ordered::pack(Order::by(self::values($scene, $by), $scene->count(), $down));
    }

    /** @return array<int, int|float|string> by row */
    private static function values(Scene $scene, string $by): array
    {
        $facts = new Facts($scene);

        return match (true) {
            Measure::tryFrom($by) !== null => self::numbers($scene, $by),
            $by === 'name' => self::named(explode("\n", $scene->column('names'))),
            $by === 'kind' => self::spelled(self::codes($scene, 'kind'), array_map(static fn (Kind $kind): string => $kind->label(), Kind::cases()), true),
            $by === 'class' => self::spelled(self::codes($scene, 'class'), $facts->words('class.words')),
            $by === 'material' => self::spelled(self::codes($scene, 'surfaces'), array_map(static fn (array $list): string => $facts->materials()[$list[0] ?? 0][0] ?? '', $facts->surfaceLists())),
            $by === 'source' => array_filter(array_map(static fn (int $source): string => Order::sortKey($facts->sourceNames()[$source] ?? ''), self::sourceOf($facts))),
            default => self::property($scene, $by),
        };
    }

    /** @return array<int, int|float|string> */
    private static function property(Scene $scene, string $column): array
    {
        $words = (new Facts($scene))->words("$column.words");
        $allNumbers = array_filter(array_slice($words, 1), is_string(...)) === [];

        return $allNumbers ? self::numbers($scene, $column) : self::spelled(self::codes($scene, $column), array_map(strval(...), $words));
    }

    /**
     * @param list<string> $names by row
     *
     * @return array<int, string>
     */
    private static function named(array $names): array
    {
        array_pop($names);
        unset($names[0]);

        return array_map(Order::sortKey(...), array_filter($names, static fn (string $name): bool => $name !== ''));
    }

    /**
     * @param array<int, int>             $codes by row
     * @param list<int|float|string>      $words by code
     *
     * @return array<int, int> the place of the row's word among all words, by row
     */
    private static function spelled(array $codes, array $words, bool $withZero = false): array
    {
        $keys = array_map(static fn (int|float|string $word): string => Order::sortKey((string) $word), $words);
        asort($keys, SORT_STRING);
        $place = array_flip(array_keys($keys));
        $values = [];
        foreach ($codes as $row => $code) {
            if ($row > 0 && ($code > 0 || $withZero)) {
                $values[$row] = $place[$code];
            }
        }

        return $values;
    }

    /** @return array<int, int> by row */
    private static function sourceOf(Facts $facts): array
    {
        $sources = [];
        $runs = $facts->sources();
        foreach ($runs->values as $index => $source) {
            for ($row = $runs->starts[$index], $last = $runs->end($index); $row <= $last; $row++) {
                $sources[$row] = $source;
            }
        }

        return $sources;
    }

    /** @return array<int, int> by row */
    private static function codes(Scene $scene, string $column): array
    {
        if ($column === 'kind') {
            /** @var list<int> $codes */
            $codes = array_values((array) unpack('C*', $scene->column('kind')));

            return $codes;
        }

        return self::uint32($scene->column($column));
    }

    /** @return list<int> */
    private static function uint32(string $packed): array
    {
        return Packed::uint32($packed, 0, intdiv(strlen($packed), 4));
    }

    /** @return array<int, int|float> by row */
    private static function numbers(Scene $scene, string $column): array
    {
        $measure = Measure::tryFrom($column);
        if ($measure === null) {
            $words = (new Facts($scene))->words("$column.words");
            $numbers = [];
            foreach (self::uint32($scene->column($column)) as $row => $code) {
                if ($code > 0 && ! is_string($words[$code])) {
                    $numbers[$row] = $words[$code];
                }
            }

            return $numbers;
        }
        $numbers = match ($measure) {
            Measure::Triangles, Measure::Weight, Measure::Holds => self::sums($scene, $measure),
            Measure::Children => self::children($scene),
            Measure::Vertices => self::uint32($scene->column('vertices')),
            Measure::Instances => self::uint32($scene->column('instances')),
            Measure::Depth => self::uint32($scene->column('depths')),
            default => self::extents($scene, $measure),
        };
        unset($numbers[0]);

        return $numbers;
    }

    /** @return array<int, int> */
    private static function sums(Scene $scene, Measure $measure): array
    {
        /** @var array<int, int> $sums */
        $sums = array_values((array) unpack('P*', $scene->column('triangles')));
        $ends = self::uint32($scene->column('end'));
        $numbers = [];
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            $numbers[$row] = match ($measure) {
                Measure::Triangles => $sums[$row] - $sums[$row - 1],
                Measure::Weight => $sums[$ends[$row]] - $sums[$row - 1],
                default => $ends[$row] - $row,
            };
        }

        return $numbers;
    }

    /** @return array<int, int> */
    private static function children(Scene $scene): array
    {
        $numbers = array_fill(0, $scene->count() + 1, 0);
        foreach (self::uint32($scene->column('parent')) as $row => $parent) {
            if ($row > 0) {
                $numbers[$parent]++;
            }
        }

        return $numbers;
    }

    /** @return array<int, float> */
    private static function extents(Scene $scene, Measure $measure): array
    {
        $boxes = $scene->column('box');
        [$ox, $oy, $oz] = (new Facts($scene))->origin();
        $numbers = [];
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            /** @var array<int, float> $b */
            $b = unpack('g6', $boxes, $row * 24);
            if ($b[1] <= $b[4]) {
                // Rounded to a tenth of a millimetre, so that equal things are equal.
                $numbers[$row] = round(Facts::ofBox($measure, [$b[1] + $ox, $b[2] + $oy, $b[3] + $oz, $b[4] + $ox, $b[5] + $oy, $b[6] + $oz]), 4);
            }
        }

        return $numbers;
    }

    private static function depths(Scene $scene): string
    {
        $depths = [0];
        foreach (self::uint32($scene->column('parent')) as $row => $parent) {
            if ($row > 0) {
                $depths[] = $depths[$parent] + 1;
            }
        }

        return pack('V*', ...$depths);
    }

    private static function instances(Scene $scene): string
    {
        $records = self::uint32($scene->column('recordAt'));
        $meshes = self::uint32($scene->column('mesh'));
        $drawn = [];
        foreach ($meshes as $row => $mesh) {
            if ($mesh > 0) {
                $drawn[$mesh] = ($drawn[$mesh] ?? 0) + $records[$row + 1] - $records[$row];
            }
        }
        $numbers = array_map(static fn (int $mesh): int => $drawn[$mesh] ?? 0, $meshes);

        return pack('V*', ...$numbers);
    }

    private static function blocks(Scene $scene): string
    {
        $boxes = $scene->column('box');
        $records = self::uint32($scene->column('recordAt'));
        $packed = '';
        for ($first = 0, $count = $scene->count(); $first <= $count; $first += self::BLOCK) {
            $block = new Box;
            for ($row = max(1, $first), $last = min($count, $first + self::BLOCK - 1); $row <= $last; $row++) {
                if ($records[$row + 1] > $records[$row]) {
                    $block = $block->with(new Box(...Packed::float32($boxes, $row * 24, 6)));
                }
            }
            $packed .= pack('g6', $block->minX, $block->minY, $block->minZ, $block->maxX, $block->maxY, $block->maxZ);
        }

        return $packed;
    }

    private static function boxes(Scene $scene): string
    {
        $count = $scene->count();
        $records = $scene->column('records');
        $recordAt = self::uint32($scene->column('recordAt'));
        $meshRows = $scene->column('meshrows');
        // As the records, boxes are kept without the origin, so that floats stay exact.
        $origin = (new Facts($scene))->origin();
        $boxes = array_fill(0, $count + 1, null);
        $known = [];
        for ($row = 1; $row <= $count; $row++) {
            for ($record = $recordAt[$row]; $record < $recordAt[$row + 1]; $record++) {
                /** @var array<int|string, float> $m */
                $m = unpack('Vobject/Vmesh/g12', $records, $record * DrawRecords::RECORD);
                $mesh = (int) $m['mesh'];
                $known[$mesh] ??= new Box(...Packed::float32($meshRows, $mesh * DrawRecords::MESH + 16, 6));
                $box = $known[$mesh]->transformed([$m[1], $m[2], $m[3], $m[4], $m[5], $m[6], $m[7], $m[8], $m[9], $m[10], $m[11], $m[12]]);
                $boxes[$row] = $boxes[$row] === null ? $box : $boxes[$row]->with($box);
            }
        }
        $spots = $scene->column('spots');
        for ($at = 0; $at < strlen($spots); $at += 28) {
            $row = Packed::uint32At(substr($spots, $at, 4), 0);
            [$x, $y, $z] = Packed::float64($spots, $at + 4, 3);
            [$x, $y, $z] = [$x - $origin[0], $y - $origin[1], $z - $origin[2]];
            $boxes[$row] ??= new Box($x, $y, $z, $x, $y, $z);
        }
        $parents = self::uint32($scene->column('parent'));
        for ($row = $count; $row > 0; $row--) {
            if ($boxes[$row] !== null && $parents[$row] > 0) {
                $boxes[$parents[$row]] = $boxes[$parents[$row]]?->with($boxes[$row]) ?? $boxes[$row];
            }
        }
        $packed = '';
        foreach ($boxes as $box) {
            $packed .= $box === null ? pack('g6', INF, INF, INF, -INF, -INF, -INF) : pack('g6', $box->minX, $box->minY, $box->minZ, $box->maxX, $box->maxY, $box->maxZ);
        }

        return $packed;
    }
}
