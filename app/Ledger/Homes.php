<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use VineShelf\Layers\Layer;

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
            'layers' => array_map(
                static fn (Layer $layer): string => "L$layer->number",
                $bench->layers()->chain($scene->layers()->at($row)),
            ),
            default => [],
        };
    }
}
