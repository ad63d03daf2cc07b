<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Scene\Kind;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts that stand in no group. */
final readonly class LooseAtTop extends Plain
{
    public function id(): string
    {
        return 'loose';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part stands in no group', 'parts stand in no group');
    }

    public function why(): string
    {
        return 'Beside groups that hold the rest of the model, loose parts are often what was left over.';
    }

    public function mends(): array
    {
        return ['group' => 'Group them'];
    }

    public function find(Model $model): array
    {
        $roots = $model->scene->children(0);
        $isGroup = static fn (int $row): bool => $model->scene->kind($row) === Kind::Group || $model->scene->end($row) > $row;
        $loose = array_filter($roots, static fn (int $row): bool => ! $isGroup($row));

        // A model without groups has nothing that is left over.
        return count($loose) === count($roots) ? [] : self::together($model, $loose);
    }
}
