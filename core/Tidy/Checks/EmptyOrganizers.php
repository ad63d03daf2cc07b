<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Layers, tags and fixed sets without objects. */
final readonly class EmptyOrganizers extends Plain
{
    public function id(): string
    {
        return 'empty';
    }

    public function title(int $many): string
    {
        return self::many($many, 'layer, tag or set holds nothing', 'layers, tags and sets hold nothing');
    }

    public function why(): string
    {
        return 'What holds nothing stands between you and what does. Standard layers that wait for objects can be waved through.';
    }

    public function mends(): array
    {
        return ['clear-out' => 'Delete them'];
    }

    public function countsItems(): bool
    {
        return true;
    }

    public function find(Model $model): array
    {
        $items = [];
        $objects = $model->scene->layers()->histogram();
        $layers = $model->organizers->layers;
        foreach ($layers->walk() as [$layer]) {
            $in = array_sum(array_intersect_key($objects, array_fill_keys($layers->withNested($layer->number), true)));
            if (! $layer->isUnsorted() && $in === 0) {
                $items[] = new Item("L$layer->number", "layer {$layers->path($layer->number)}", $model->none(), ["L$layer->number"]);
            }
        }
        foreach ($model->organizers->tags->all() as $tag) {
            if ($model->scene->tagged($tag->number)->isEmpty()) {
                $items[] = new Item("T$tag->number", "tag $tag->name", $model->none(), ["T$tag->number"]);
            }
        }
        foreach ($model->organizers->sets->all() as $set) {
            if (! $set->isLive() && $model->scene->chosen($set->number)->isEmpty()) {
                $items[] = new Item("E$set->number", "set $set->name", $model->none(), ["E$set->number"]);
            }
        }

        return $items;
    }
}
