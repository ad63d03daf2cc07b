<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Layers\Layer;
use VineShelf\Scene\Kind;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Groups and what they hold under different layers. */
final readonly class FiledApart extends Plain
{
    public function id(): string
    {
        return 'filed-apart';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part is filed apart from its group', 'parts are filed apart from their groups');
    }

    public function why(): string
    {
        return 'It may be meant: a seat of a stand under Seats. Where it is not, hiding a layer leaves half of a thing behind.';
    }

    public function mends(): array
    {
        return ['file-with-group' => 'File parts with their groups', 'file-groups' => 'File groups with most of their parts'];
    }

    public function find(Model $model): array
    {
        $scene = $model->scene;
        $pairs = [];
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            $parent = $scene->parent($row);
            if ($parent === 0 || $scene->kind($parent) !== Kind::Group || $scene->kind($row) === Kind::Group) {
                continue;
            }
            [$own, $groups] = [$scene->layers()->at($row), $scene->layers()->at($parent)];
            if ($own !== $groups && $own !== Layer::UNSORTED && $groups !== Layer::UNSORTED) {
                $pairs["$groups-$own"][] = $row;
            }
        }
        uasort($pairs, static fn (array $a, array $b): int => count($b) <=> count($a));
        $name = static fn (int $layer): string => $model->organizers->layers->get($layer)->name;
        $items = [];
        foreach ($pairs as $pair => $rows) {
            [$groups, $own] = array_map(intval(...), explode('-', $pair));
            $says = "{$name($own)}, in groups under {$name($groups)}";
            $items[] = new Item($pair, $says, $model->rows($rows), ["L$groups", "L$own"]);
        }

        return $items;
    }
}
