<?php

declare(strict_types=1);

namespace VineShelf\Tidy;

use VineShelf\Naming\Renaming;
use VineShelf\Scene\Bits;
use VineShelf\Search\NameIndex;
use VineShelf\Tidy\Checks\ExportersNames;
use VineShelf\Tidy\Checks\NearlySame;

/** Better names, read off what is known of objects. */
final class Names
{
    /**
     * As a mend gives them.
     *
     * @return array<int, string>|null by row; null where the mend names nothing
     */
    public static function by(string $mend, Model $model, Bits $rows): ?array
    {
        return match ($mend) {
            'name' => self::proposed($model, $rows),
            'number' => self::numbered($model, $rows),
            'one-spelling' => self::oneSpelling($model, $rows),
            default => null,
        };
    }

    /**
     * For what has none, or an exporter's: after its class, the group that it stands in, its material or its layer, with a number. What has
     * none of these keeps its name.
     *
     * @return array<int, string> by row
     */
    public static function proposed(Model $model, Bits $rows): array
    {
        $numbered = new \VineShelf\Naming\Numbered($model->names);
        $named = [];
        foreach ($rows->rows() as $row) {
            $stem = self::stem($model, $row);
            if ($stem !== '') {
                $named[$row] = $numbered->next($stem.' 0');
            }
        }

        return $named;
    }

    /**
     * For those of one name in a group: numbers after it, the first of them as it is.
     *
     * @return array<int, string> by row
     */
    public static function numbered(Model $model, Bits $rows): array
    {
        $scene = $model->scene;
        $among = $named = $first = [];
        foreach ($rows->rows() as $row) {
            $parent = $scene->parent($row);
            $key = $parent.' '.mb_strtolower($model->names[$row]);
            if (! isset($first[$key])) {
                $first[$key] = true;

                continue;
            }
            $among[$parent] ??= new \VineShelf\Naming\Numbered(
                array_map(static fn (int $child): string => $model->names[$child], $scene->children($parent)),
            );
            $named[$row] = $among[$parent]->next($model->names[$row]);
        }

        return $named;
    }

    /**
     * Each name written as most of its like are.
     *
     * @return array<int, string> by row
     */
    public static function oneSpelling(Model $model, Bits $rows): array
    {
        $ways = [];
        foreach ($rows->rows() as $row) {
            $stem = NameIndex::stem($model->names[$row]);
            $ways[NearlySame::plain($stem)][$stem][] = $row;
        }
        $named = [];
        foreach ($ways as $stems) {
            uasort($stems, static fn (array $a, array $b): int => count($b) <=> count($a));
            $best = (string) array_key_first($stems);
            foreach (array_slice($stems, 1, null, true) as $stem => $some) {
                foreach ($some as $row) {
                    $named[$row] = trim($best).substr($model->names[$row], strlen((string) $stem));
                }
            }
        }

        return $named;
    }

    private static function stem(Model $model, int $row): string
    {
        $class = $model->facts->className($row);
        if ($class !== '') {
            return mb_substr($class, 0, Renaming::LONGEST - 40);
        }
        $materials = $model->facts->materialsOf($row);
        $material = count($materials) === 1 ? trim($model->facts->materials()[$materials[0]][0] ?? '') : '';
        for ($above = $model->scene->parent($row); $above !== 0; $above = $model->scene->parent($above)) {
            $name = trim($model->names[$above] ?? '');
            if ($name !== '' && ! ExportersNames::isOne($name)) {
                $stem = $material === '' ? NameIndex::stem($name) : NameIndex::stem($name).' '.mb_strtolower($material);

                return mb_substr($stem, 0, Renaming::LONGEST - 40);
            }
        }

        $layer = $model->organizers->layers->get($model->scene->layers()->at($row));

        return mb_substr($material !== '' || $layer->isUnsorted() ? $material : $layer->name, 0, Renaming::LONGEST - 40);
    }
}
