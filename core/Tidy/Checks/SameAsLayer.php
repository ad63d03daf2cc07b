<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Layers and objects of the same name. */
final readonly class SameAsLayer extends Plain
{
    public function id(): string
    {
        return 'same-as-layer';
    }

    public function title(int $many): string
    {
        return self::many($many, 'layer is called like an object', 'layers are called like objects');
    }

    public function why(): string
    {
        return 'In a list, and in what people say, one is taken for the other: the layer holds more, or less, than the group.';
    }

    public function countsItems(): bool
    {
        return true;
    }

    public function find(Model $model): array
    {
        $layers = [];
        foreach ($model->organizers->layers->walk() as [$layer]) {
            $layers[mb_strtolower(trim($layer->name))][] = $layer;
        }
        $rows = [];
        foreach ($model->names as $row => $name) {
            $lower = $row === 0 ? '' : mb_strtolower(trim($name));
            if (isset($layers[$lower])) {
                $rows[$lower][] = $row;
            }
        }
        $items = [];
        foreach ($rows as $name => $those) {
            foreach ($layers[$name] as $layer) {
                $items[] = new Item("L$layer->number", $layer->name, $model->rows($those), ["L$layer->number"]);
            }
        }

        return $items;
    }
}
