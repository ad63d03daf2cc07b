<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Live sets that find nothing, or ask for what is gone. */
final readonly class DeadSets extends Plain
{
    public function id(): string
    {
        return 'dead-sets';
    }

    public function title(int $many): string
    {
        return self::many($many, 'live set finds nothing or asks for what is gone', 'live sets find nothing or ask for what is gone');
    }

    public function why(): string
    {
        return 'Something was renamed or deleted since the rule was written.';
    }

    public function countsItems(): bool
    {
        return true;
    }

    public function find(Model $model): array
    {
        $items = [];
        foreach ($model->sets as $number => [$many, $vain]) {
            $set = $model->organizers->sets->has($number) ? $model->organizers->sets->get($number) : null;
            if ($set !== null && ($many === 0 || $vain !== '')) {
                $items[] = new Item("E$number", "$set->name: ".($vain === '' ? 'finds nothing' : $vain), $model->none(), ["E$number"]);
            }
        }

        return $items;
    }
}
