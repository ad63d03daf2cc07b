<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Materials that differ by name only. */
final readonly class SameMaterials extends Plain
{
    public function id(): string
    {
        return 'same-materials';
    }

    public function title(int $many): string
    {
        return self::many($many, 'material has several names', 'materials have several names each');
    }

    public function why(): string
    {
        return 'Who changes one changes half. Each is one more call to the graphics card.';
    }

    public function countsItems(): bool
    {
        return true;
    }

    public function find(Model $model): array
    {
        $alike = [];
        foreach ($model->surfaces as $number => $looks) {
            $alike[$looks][$number] = $model->facts->materials()[$number][0] ?? '';
        }
        $surfaces = [];
        foreach ($model->facts->surfaceLists() as $code => $materials) {
            foreach ($materials as $material) {
                $surfaces[$material][] = $code;
            }
        }
        $items = [];
        foreach ($alike as $looks => $names) {
            $codes = array_merge(...array_values(array_intersect_key($surfaces, $names)), ...[[]]);
            $rows = $codes === [] ? $model->none() : $model->facts->ranked('surfaces')->in(array_values(array_unique($codes)));
            if (count(array_unique(array_map(mb_strtolower(...), $names))) > 1 && ! $rows->isEmpty()) {
                $items[] = new Item(hash('xxh3', (string) $looks), implode(', ', array_unique($names)), $rows);
            }
        }

        return $items;
    }
}
