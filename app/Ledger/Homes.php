<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Organizer;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Folders\Shelved;
use VineShelf\Layers\Layer;
use VineShelf\Sets\SelectionSet;

/** The rows that an object can be found under in a lens. */
final class Homes
{
    /** @return list<string> row keys, nearest first */
    public static function of(Bench $bench, string $lens, int $row): array
    {
        $scene = $bench->scene();
        $facts = $bench->facts();
        $kind = $scene->kind($row)->value;

        return match ($lens) {
            'nesting' => array_map(static fn (int $above): string => 'O'.$scene->number($above), $scene->ancestors($row)),
            'kinds' => [
                ...array_map(
                    static fn (int $code): string => "K$kind.$code",
                    array_keys($facts->words('class.words'), $facts->className($row), true),
                ),
                "K$kind",
            ],
            'materials' => array_map(static fn (int $material): string => "M$material", $facts->materialsOf($row) ?: [0]),
            'sources' => ['S'.$facts->sources()->at($row)],
            'tags' => self::shelved(Holds::Tags, $bench, static fn (Shelved $tag): bool => $scene->tagged($tag->number())->has($row)),
            'sets' => self::shelved(
                Holds::Sets,
                $bench,
                static fn (Shelved $set): bool => $set instanceof SelectionSet && $bench->set($set)->rows->has($row),
            ),
            'layers' => array_map(
                static fn (Layer $layer): string => "L$layer->number",
                $bench->layers()->chain($scene->layers()->at($row)),
            ),
            default => [],
        };
    }

    /**
     * The first tag or set that has the object, and the folders above that.
     *
     * @param \Closure(Shelved): bool $has
     *
     * @return list<string>
     */
    private static function shelved(Holds $holds, Bench $bench, \Closure $has): array
    {
        $tree = Organizer::tree($bench, $holds->value);
        foreach ($tree->inOrder() as $member) {
            if ($has($member)) {
                return [
                    ($holds === Holds::Tags ? 'T' : 'E').$member->number(),
                    ...array_map(static fn (Folder $folder): string => "F$folder->number", $tree->chain($member->folder())),
                ];
            }
        }

        return [];
    }
}
