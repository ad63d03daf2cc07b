<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Layers of the same name in different places. */
final readonly class SameLayers extends Plain
{
    public function id(): string
    {
        return 'same-layers';
    }

    public function title(int $many): string
    {
        return self::many($many, 'name is that of several layers', 'names are those of several layers each');
    }

    public function why(): string
    {
        return 'A rule that says layer:name means all of them, and files of other programs make one of them.';
    }

    public function countsItems(): bool
    {
        return true;
    }

    public function find(Model $model): array
    {
        $by = [];
        foreach ($model->organizers->layers->walk() as [$layer]) {
            $by[mb_strtolower(trim($layer->name))][] = $layer;
        }
        $items = [];
        foreach ($by as $name => $layers) {
            if (count($layers) > 1) {
                $numbers = array_map(static fn ($layer): int => $layer->number, $layers);
                $rows = $model->scene->layers()->rowsOf(array_fill_keys($numbers, true));
                $paths = implode('; ', array_map($model->organizers->layers->path(...), $numbers));
                $items[] = new Item((string) $name, $paths, $rows, array_map(static fn (int $number): string => "L$number", $numbers));
            }
        }

        return $items;
    }
}
