<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Facts\Codes;
use VineShelf\Facts\Facts;
use VineShelf\Facts\Measure;
use VineShelf\Facts\Order;
use VineShelf\Scene\Kind;
use VineShelf\Scene\MeshWeights;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** What the rows of a scene have in a column: codes, numbers, or what they are sorted by. */
final class Values
{
    /** @return list<string> the columns that {@see numbers()} reads */
    public static function needsOfNumbers(string $column): array
    {
        return match (Measure::tryFrom($column)) {
            null => [$column, "$column.words"],
            Measure::Triangles, Measure::Weight, Measure::Holds => ['triangles', 'end'],
            Measure::Children => ['parent'],
            Measure::Vertices => ['vertices'],
            Measure::Calls => ['recordAt', 'mesh', 'meshweights', 'meshrows'],
            Measure::Geometry => ['mesh', 'meshweights', 'meshrows'],
            Measure::Texture => ['surfaces', 'surfaces.lists', 'materials', 'pictures'],
            Measure::Instances => ['instances'],
            Measure::Depth => ['depths'],
            Measure::X, Measure::Y, Measure::Z, Measure::Bottom, Measure::Top => ['place', 'origin'],
            default => ['bounds'],
        };
    }

    /** @return list<string> the columns that {@see sortKeys()} reads */
    public static function needsOfSortKeys(string $by): array
    {
        return match (true) {
            Measure::tryFrom($by) !== null => self::needsOfNumbers($by),
            $by === 'name' => ['names'],
            $by === 'kind' => ['kind'],
            $by === 'class' => ['class', 'class.words'],
            $by === 'material' => ['surfaces', 'surfaces.lists', 'materials'],
            $by === 'source' => ['source', 'sources'],
            default => [$by, "$by.words"],
        };
    }

    /** @return array<int, int|float|string> by row */
    public static function sortKeys(Scene $scene, string $by): array
    {
        $facts = new Facts($scene);

        return match (true) {
            Measure::tryFrom($by) !== null => self::numbers($scene, $by),
            $by === 'name' => self::named(explode("\n", $scene->column('names'))),
            $by === 'kind' => self::spelled(
                self::codes($scene, 'kind'),
                array_map(static fn (Kind $kind): string => $kind->label(), Kind::cases()),
                true,
            ),
            $by === 'class' => self::spelled(self::codes($scene, 'class'), $facts->words('class.words')),
            $by === 'material' => self::spelled(
                self::codes($scene, 'surfaces'),
                array_map(static fn (array $list): string => $facts->materials()[$list[0] ?? 0][0] ?? '', $facts->surfaceLists()),
            ),
            $by === 'source' => array_filter(
                array_map(static fn (int $source): string => Order::sortKey($facts->sourceNames()[$source] ?? ''), self::sourceOf($facts)),
            ),
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
        $sources = $facts->sources()->toList();

        return $sources === [] ? [] : array_combine(range(1, count($sources)), $sources);
    }

    /** @return array<int, int> by row; where there is none, 0 or no entry */
    public static function codes(Scene $scene, string $column): array
    {
        if ($column === 'kind') {
            /** @var list<int> $codes */
            $codes = array_values((array) unpack('C*', $scene->column('kind')));

            return $codes;
        }

        return str_starts_with($column, 'property.')
            ? Codes::unpack($scene->column($column))->all()
            : self::uint32($scene->column($column));
    }

    /** @return list<int> */
    private static function uint32(string $packed): array
    {
        return Packed::uint32($packed, 0, intdiv(strlen($packed), 4));
    }

    /** @return array<int, int|float> by row */
    public static function numbers(Scene $scene, string $column): array
    {
        $measure = Measure::tryFrom($column);
        if ($measure === null) {
            $words = (new Facts($scene))->words("$column.words");
            $numbers = [];
            foreach (self::codes($scene, $column) as $row => $code) {
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
            Measure::Calls => self::calls($scene),
            Measure::Geometry => self::geometry($scene),
            Measure::Texture => self::texture($scene),
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

    /** @return list<int> by row */
    public static function calls(Scene $scene): array
    {
        [, , $pieces] = MeshWeights::all($scene);
        $ends = self::uint32($scene->column('recordAt'));
        $numbers = [];
        foreach (self::uint32($scene->column('mesh')) as $row => $mesh) {
            $numbers[] = ($pieces[$mesh] ?? 0) * ($ends[$row + 1] - $ends[$row]);
        }

        return $numbers;
    }

    /** @return list<int> */
    private static function geometry(Scene $scene): array
    {
        [, , , $bytes] = MeshWeights::all($scene);

        return array_map(static fn (int $mesh): int => $bytes[$mesh] ?? 0, self::uint32($scene->column('mesh')));
    }

    /** @return list<int> */
    private static function texture(Scene $scene): array
    {
        $facts = new Facts($scene);
        $bytes = array_fill(0, count($facts->surfaceLists()), 0);
        foreach ($facts->surfacesByPicture() as $picture => $codes) {
            foreach ($codes as $code) {
                $bytes[$code] += $facts->pictures()[$picture]['bytes'] ?? 0;
            }
        }

        return array_map(static fn (int $code): int => $bytes[$code], self::uint32($scene->column('surfaces')));
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
        $isPlace = self::needsOfNumbers($measure->value) === ['place', 'origin'];
        $boxes = $scene->column($isPlace ? 'place' : 'bounds');
        [$format, $wide] = $isPlace ? ['g6', 24] : ['e6', 48];
        [$ox, $oy, $oz] = $isPlace ? (new Facts($scene))->origin() : [0.0, 0.0, 0.0];
        $numbers = [];
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            /** @var array<int, float> $b */
            $b = unpack($format, $boxes, $row * $wide);
            if ($b[1] <= $b[4]) {
                // Rounded, lengths to a hundredth of a millimetre, so that equal things are equal.
                $numbers[$row] = round(
                    Facts::ofBox($measure, [$b[1] + $ox, $b[2] + $oy, $b[3] + $oz, $b[4] + $ox, $b[5] + $oy, $b[6] + $oz]),
                    $measure->dimension() === 3 ? 12 : 5,
                );
            }
        }

        return $numbers;
    }
}
