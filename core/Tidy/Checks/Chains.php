<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Scene\Kind;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Groups that hold one group and nothing else. */
final readonly class Chains extends Plain
{
    public function id(): string
    {
        return 'chains';
    }

    public function title(int $many): string
    {
        return self::many($many, 'group holds one group and nothing else', 'groups hold one group and nothing else');
    }

    public function why(): string
    {
        return 'Each is a step down that leads to one thing.';
    }

    public function mends(): array
    {
        return ['ungroup' => 'Ungroup them'];
    }

    public function find(Model $model): array
    {
        $scene = $model->scene;
        $rows = [];
        foreach ($scene->groups() as $row) {
            $child = $row + 1;
            if ($scene->kind($row) === Kind::Group && $scene->end($child) === $scene->end($row) && $scene->kind($child) === Kind::Group) {
                $rows[] = $row;
            }
        }

        return self::together($model, $rows);
    }
}
