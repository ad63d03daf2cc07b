<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\MeshWeights;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * What is known of each object beyond its place: measures, class, materials, source, properties of the file. Columns that are not in
 * the index yet are worked out by {@see Derived} when they are first asked for.
 */
final class Facts
{
    /** @var array<string, array<int|string, mixed>> */
    private array $lists = [];

    /** @var array<string, Tally> */
    private array $tallies = [];

    /** @var array<string, Ranked> */
    private array $ranked = [];

    /** @var array<int, Codes> by property */
    private array $codes = [];

    public function __construct(public readonly Scene $scene) {}

    public function mesh(int $row): int
    {
        return Packed::uint32At($this->scene->column('mesh'), $row);
    }

    public function className(int $row): string
    {
        return (string) $this->words('class.words')[Packed::uint32At($this->scene->column('class'), $row)];
    }

    public function sources(): Coded
    {
        return Coded::unpack($this->scene->column('source'));
    }

    /** @return array<int, string> by number */
    public function sourceNames(): array
    {
        /** @var array<int, string> */
        return $this->list('sources');
    }

    /** @return list<int> material numbers of what the object itself draws */
    public function materialsOf(int $row): array
    {
        return $this->surfaceLists()[Packed::uint32At($this->scene->column('surfaces'), $row)];
    }

    /** @return list<list<int>> material numbers by surface code */
    public function surfaceLists(): array
    {
        /** @var list<list<int>> */
        return $this->list('surfaces.lists');
    }

    /**
     * @return array<int, array{0: string, 1: bool, 2: string, 3: int, 4?: list<int>}> name, whether it has a texture, colour, source,
     *     pictures; by number
     */
    public function materials(): array
    {
        /** @var array<int, array{0: string, 1: bool, 2: string, 3: int, 4?: list<int>}> */
        return $this->list('materials');
    }

    /** @return array<int, array{bytes: int, width: int, height: int}> as it stands on the graphics card, and its pixels; by picture */
    public function pictures(): array
    {
        /** @var array<int, array{bytes: int, width: int, height: int}> */
        return $this->list('pictures');
    }

    /** @return array<int, list<int>> by picture: the codes of the surfaces that it is seen on */
    public function surfacesByPicture(): array
    {
        $by = [];
        foreach ($this->surfaceLists() as $code => $materials) {
            foreach ($materials as $material) {
                foreach ($this->materials()[$material][4] ?? [] as $picture) {
                    $by[$picture][$code] = $code;
                }
            }
        }

        return array_map(array_values(...), $by);
    }

    /** @return array<string, array{int, int, bool}> index, objects that have it, whether all values are numbers; by name */
    public function properties(): array
    {
        /** @var array<string, array{int, int, bool}> */
        return $this->list('properties');
    }

    /** The name of a property as the files write it, whatever the case it is asked for in; null if no file has it. */
    public function propertyNamed(string $name): ?string
    {
        if (isset($this->properties()[$name])) {
            return $name;
        }
        foreach ($this->properties() as $known => $_) {
            if (mb_strtolower((string) $known) === mb_strtolower($name)) {
                return (string) $known;
            }
        }

        return null;
    }

    /** The value of a property, null where the object does not have it. */
    public function property(int $row, string $name): int|float|string|null
    {
        $index = $this->properties()[$name][0] ?? null;
        if ($index === null) {
            return null;
        }
        $code = $this->codes($index)->at($row);

        return $code === 0 ? null : $this->words("property.$index.words")[$code] ?? null;
    }

    /** Which of its values each object has, of the property with the index. */
    public function codes(int $index): Codes
    {
        return $this->codes[$index] ??= Codes::unpack($this->scene->column("property.$index"));
    }

    /** @return list<int|float|string> the different values of a coded column; entry 0 stands for none */
    public function words(string $column): array
    {
        /** @var list<int|float|string> */
        return $this->list($column);
    }

    /** The value of a measure, null where there is nothing to measure. Metres and cubic metres. */
    public function measure(Measure $measure, int $row): int|float|null
    {
        return match ($measure) {
            Measure::Triangles => $this->scene->triangles($row, $row),
            Measure::Weight => $this->scene->triangles($row, $this->scene->end($row)),
            Measure::Vertices => Packed::uint32At($this->scene->column('vertices'), $row),
            Measure::Calls, Measure::Geometry, Measure::Texture => $this->weighed($measure, $row),
            Measure::Holds => $this->scene->end($row) - $row,
            Measure::Depth => $this->scene->depth($row),
            Measure::Children => count($this->scene->children($row)),
            Measure::Instances => Packed::uint32At($this->scene->column('instances'), $row),
            default => $this->extent($measure, $row),
        };
    }

    /**
     * @return array{float, float, float, float, float, float}|null least and greatest x, y, z of what the object and what it holds draw,
     * metres; null when nothing is drawn
     */
    public function box(int $row): ?array
    {
        $b = Packed::float64($this->scene->column('bounds'), $row * 48, 6);

        return $this->withOrigin($b[0] > $b[3] ? null : [$b[0], $b[1], $b[2], $b[3], $b[4], $b[5]]);
    }

    /**
     * The box around several objects.
     *
     * @return array{float, float, float, float, float, float}|null as above
     */
    public function boxAround(Bits $rows): ?array
    {
        $around = null;
        foreach ($rows->rows() as $row) {
            $box = $this->box($row);
            if ($box !== null) {
                $around ??= $box;
                foreach ([0, 1, 2] as $axis) {
                    $around[$axis] = min($around[$axis], $box[$axis]);
                    $around[$axis + 3] = max($around[$axis + 3], $box[$axis + 3]);
                }
            }
        }

        return $around;
    }

    /**
     * @return array{float, float, float, float, float, float}|null the same, and where what draws nothing is; null when nothing of it has a
     * place
     */
    public function place(int $row): ?array
    {
        return $this->withOrigin($this->placeFromOrigin($row));
    }

    /** @return array{float, float, float, float, float, float}|null the place without the origin, as the canvas counts */
    public function placeFromOrigin(int $row): ?array
    {
        $b = Packed::float32($this->scene->column('place'), $row * 24, 6);

        return $b[0] > $b[3] ? null : [$b[0], $b[1], $b[2], $b[3], $b[4], $b[5]];
    }

    /**
     * @param array{float, float, float, float, float, float}|null $b
     *
     * @return array{float, float, float, float, float, float}|null
     */
    private function withOrigin(?array $b): ?array
    {
        [$x, $y, $z] = $this->origin();

        return $b === null ? null : [$b[0] + $x, $b[1] + $y, $b[2] + $z, $b[3] + $x, $b[4] + $y, $b[5] + $z];
    }

    /** @return array{float, float, float} what was taken off all places of the draw records, metres */
    public function origin(): array
    {
        [$x, $y, $z] = Packed::float64($this->scene->column('origin'), 0, 3);

        return [$x, $y, $z];
    }

    /** @param string $column a measure, "kind", "mesh", "class", "surfaces", "property.N", or "number.N" for a property's numbers */
    public function ranked(string $column): Ranked
    {
        return $this->ranked[$column] ??= Ranked::unpack($this->scene->column("ranked.$column"));
    }

    /** @param string $which "groups", "unnamed", "material", "textures" or "properties" */
    public function bits(string $which): Bits
    {
        return Bits::ofBytes($this->scene->count(), $this->scene->column("bits.$which"));
    }

    /** @param string $by a measure, or "name", "kind", "class", "material", "source", "property.N" */
    public function order(string $by, bool $down): Ordered
    {
        return Ordered::unpack($this->scene->column("order.$by.".($down ? 'down' : 'up')));
    }

    /** @param string $column see {@see Tally::of()} */
    public function tally(string $column): Tally
    {
        return $this->tallies[$column] ??= Tally::of($this->scene, $column);
    }

    private function weighed(Measure $measure, int $row): int
    {
        if ($measure === Measure::Texture) {
            $pictures = [];
            foreach ($this->materialsOf($row) as $material) {
                foreach ($this->materials()[$material][4] ?? [] as $picture) {
                    $pictures[$picture] = $this->pictures()[$picture]['bytes'] ?? 0;
                }
            }

            return array_sum($pictures);
        }
        [$pieces, $bytes] = MeshWeights::of($this->scene, $this->mesh($row));
        [$first, $end] = Packed::uint32($this->scene->column('recordAt'), 4 * $row, 2);

        return $measure === Measure::Calls ? $pieces * ($end - $first) : $bytes;
    }

    private function extent(Measure $measure, int $row): ?float
    {
        $isPlace = in_array($measure, [Measure::X, Measure::Y, Measure::Z, Measure::Bottom, Measure::Top], true);
        $box = $isPlace ? $this->place($row) : $this->box($row);

        return $box === null ? null : self::ofBox($measure, $box);
    }

    /**
     * @internal shared with Derived
     *
     * @param array{float, float, float, float, float, float} $b
     */
    public static function ofBox(Measure $measure, array $b): float
    {
        return match ($measure) {
            Measure::Width => $b[3] - $b[0],
            Measure::Length => $b[4] - $b[1],
            Measure::Height => $b[5] - $b[2],
            Measure::Size => max($b[3] - $b[0], $b[4] - $b[1], $b[5] - $b[2]),
            Measure::Volume => ($b[3] - $b[0]) * ($b[4] - $b[1]) * ($b[5] - $b[2]),
            Measure::X => ($b[0] + $b[3]) / 2,
            Measure::Y => ($b[1] + $b[4]) / 2,
            Measure::Z => ($b[2] + $b[5]) / 2,
            Measure::Bottom => $b[2],
            Measure::Top => $b[5],
            default => throw new \LogicException("$measure->value is not read from a box."),
        };
    }

    /** @return array<int|string, mixed> */
    private function list(string $column): array
    {
        if (! isset($this->lists[$column])) {
            $list = json_decode($this->scene->column($column), true, 16, JSON_THROW_ON_ERROR);
            $this->lists[$column] = is_array($list) ? $list : [];
        }

        return $this->lists[$column];
    }
}
