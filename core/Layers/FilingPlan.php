<?php

declare(strict_types=1);

namespace VineShelf\Layers;

use VineShelf\Colours\Palette;
use VineShelf\Formats\Intake;
use VineShelf\Formats\TakenObjects;
use VineShelf\Formats\UnreadableFile;
use VineShelf\Scene\Kind;

/** Which layer each object of a new source is filed under. */
final readonly class FilingPlan
{
    /** Share of the objects that must carry a layer property before it is trusted. */
    private const TRUSTED = 0.3;

    /** Layers that one file may make. */
    private const MOST = 10_000;

    /** Colours for layers that have no material to take one from. */
    private const COLOURS = [
        '#3f7a63',
        '#b98a52',
        '#7fb8bd',
        '#c98f4a',
        '#6d7d8b',
        '#d26b4f',
        '#8d9a75',
        '#a8866b',
        '#5d8f84',
        '#d8c48f',
        '#8a9c8f',
        '#b4573f',
    ];

    /**
     * @param list<string> $names   layer names in the order they should stand
     * @param list<string> $colours one per name
     * @param list<int>    $layerOf by row, entry 0 unused: index into the names, or -1 for Unsorted
     * @param string       $how     how it was done, the end of the sentence "filed by …"
     * @param array<string, list<string>> $paths names from the top, by name, of those that say what they lie in
     */
    private function __construct(
        public array $names,
        public array $colours,
        public array $layerOf,
        public string $how,
        public array $paths = [],
    ) {}

    /** @param string $property name of the property that {@see SortBy::Property} goes by; case does not matter */
    public static function of(Intake $intake, SortBy $by, string $property = 'layer'): self
    {
        $objects = $intake->objects();
        if ($by === SortBy::Best && $objects->sorted !== []) {
            return self::asExported($intake);
        }
        if ($by === SortBy::Best) {
            $labels = self::byProperty($objects, 'layer');
            $named = count(array_filter($labels, static fn (string $label): bool => $label !== ''));
            $by = $named >= self::TRUSTED * max(1, $objects->count()) ? SortBy::Property : SortBy::Groups;
            $property = 'layer';
        }
        [$labels, $how] = match ($by) {
            SortBy::Property => [$labels ?? self::byProperty($objects, $property), "the property \"$property\""],
            SortBy::Material => [self::byMaterial($intake), 'material'],
            SortBy::Kind => [array_map(static fn (int $kind): string => ucfirst(Kind::from($kind)->label()), $objects->kinds), 'kind'],
            SortBy::Unsorted => [array_fill(0, $objects->count() + 1, ''), 'nothing'],
            default => [self::byGroups($objects), 'top groups'],
        };

        return self::fromLabels($intake, $labels, $how, $by !== SortBy::Groups);
    }

    /** As the objects were sorted when they were exported. */
    private static function asExported(Intake $intake): self
    {
        $labels = array_fill(0, $intake->objects()->count() + 1, '');
        $paths = [];
        foreach ($intake->objects()->sorted as $row => $sorted) {
            $labels[$row] = implode(' / ', $sorted->layer);
            $paths[$labels[$row]] = $sorted->layer;
        }
        unset($paths['']);

        return self::fromLabels($intake, $labels, 'how it was sorted when it was exported', true, $paths);
    }

    /**
     * @param array<int, string>          $labels by row, '' for Unsorted
     * @param array<string, list<string>> $paths
     */
    private static function fromLabels(Intake $intake, array $labels, string $how, bool $sort, array $paths = []): self
    {
        $labels[0] = '';
        ksort($labels);
        // What was in Unsorted when it was exported has said so.
        $said = $paths === [] ? [] : $intake->objects()->sorted;
        foreach ($intake->objects()->parents as $row => $parent) {
            // What has no layer of its own goes where the nearest group above it goes.
            if ($row > 0 && $labels[$row] === '' && ! isset($said[$row])) {
                $labels[$row] = $labels[$parent];
            }
        }
        $names = array_values(array_filter(array_unique($labels), static fn (string $label): bool => $label !== ''));
        if ($sort) {
            natcasesort($names);
            $names = array_values($names);
        }
        if (count($names) > self::MOST) {
            throw UnreadableFile::because(
                "Sorting by $how would make ".
                    number_format(count($names)).
                    ' layers, and at most '.
                    number_format(self::MOST).
                    ' fit; choose another way to sort.',
            );
        }
        $index = array_flip($names);
        $layerOf = [];
        foreach ($labels as $label) {
            $layerOf[] = $label === '' ? -1 : $index[$label];
        }

        // Eight layers of one grey are one layer to the eye.
        return new self($names, Palette::onSight(self::colours($intake, $layerOf, count($names))), $layerOf, $how, $paths);
    }

    /** @return array<int, string> */
    private static function byProperty(TakenObjects $objects, string $property): array
    {
        $labels = array_fill(0, $objects->count() + 1, '');
        foreach ($objects->property($property) as $row => $value) {
            if (is_scalar($value)) {
                $labels[$row] = self::label((string) $value);
            }
        }

        return $labels;
    }

    /** @return array<int, string> */
    private static function byMaterial(Intake $intake): array
    {
        $materials = $intake->materials();
        $meshes = $intake->meshes();
        $labels = [''];
        foreach ($intake->objects()->meshes as $row => $mesh) {
            if ($row > 0) {
                $material = $mesh < 0 ? null : $meshes[$mesh]->material;
                $labels[$row] = $material === null ? '' : self::label($materials[$material]->name ?: "Material $material");
            }
        }

        return $labels;
    }

    /** @return array<int, string> */
    private static function byGroups(TakenObjects $objects): array
    {
        // A single group that wraps everything says nothing; look below it.
        $top = 0;
        while (true) {
            $inside = array_keys($objects->parents, $top, true);
            $inside = array_values(array_filter($inside, static fn (int $row): bool => $row > 0));
            if (count($inside) !== 1 || $objects->kinds[$inside[0]] !== Kind::Group->value) {
                break;
            }
            $top = $inside[0];
        }
        $labels = array_fill(0, $objects->count() + 1, '');
        for ($row = 1; $row <= $objects->count(); $row++) {
            $parent = $objects->parents[$row];
            if ($parent === $top && $row !== $top) {
                $labels[$row] =
                    $objects->kinds[$row] === Kind::Group->value ? self::label($objects->names[$row] ?: 'Unnamed group '.$row) : '';
            } elseif ($parent > $top) {
                $labels[$row] = $labels[$parent];
            }
        }

        return $labels;
    }

    private static function label(string $text): string
    {
        return mb_strimwidth(trim(preg_replace('~\s+~u', ' ', mb_scrub($text)) ?? ''), 0, 200, '…');
    }

    /**
     * The colour of the material that most triangles of the layer have.
     *
     * @param list<int> $layerOf
     *
     * @return list<string>
     */
    private static function colours(Intake $intake, array $layerOf, int $layers): array
    {
        $objects = $intake->objects();
        $meshes = $intake->meshes();
        $weight = [];
        foreach ($objects->meshes as $row => $mesh) {
            $material = $mesh < 0 ? null : $meshes[$mesh]->material;
            if ($material !== null && $layerOf[$row] >= 0) {
                $weight[$layerOf[$row]][$material] =
                    ($weight[$layerOf[$row]][$material] ?? 0) + $meshes[$mesh]->triangles * $objects->drawn($row);
            }
        }
        $colours = [];
        for ($layer = 0; $layer < $layers; $layer++) {
            $most = isset($weight[$layer]) ? array_search(max($weight[$layer]), $weight[$layer], true) : false;
            $material = $most === false ? null : $intake->materials()[$most];
            $colours[] = $material === null ? self::COLOURS[$layer % count(self::COLOURS)] : self::hexadecimal($material->colour);
        }

        return $colours;
    }

    /** @param array{float, float, float, float} $linear */
    private static function hexadecimal(array $linear): string
    {
        $text = '#';
        foreach ([0, 1, 2] as $channel) {
            $value = max(0.0, min(1.0, $linear[$channel]));
            $text .= sprintf('%02x', (int) round(255 * ($value <= 0.0031308 ? 12.92 * $value : 1.055 * $value ** (1 / 2.4) - 0.055)));
        }

        return $text;
    }
}
