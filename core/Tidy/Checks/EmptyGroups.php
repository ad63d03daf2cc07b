<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Scene\Kind;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Groups that hold nothing, or only groups that hold nothing. */
final readonly class EmptyGroups extends Plain
{
    public function id(): string
    {
        return 'empty-groups';
    }

    public function title(int $many): string
    {
        return self::many($many, 'group holds nothing', 'groups hold nothing');
    }

    public function why(): string
    {
        return 'They lengthen every list and show nothing.';
    }

    public function mends(): array
    {
        return ['delete' => 'Delete them'];
    }

    public function find(Model $model): array
    {
        $scene = $model->scene;
        $groups = $model->facts->ranked('kind')->in([Kind::Group->value]);
        $rows = [];
        foreach ($groups->rows() as $row) {
            $end = $scene->end($row);
            if ($groups->countBetween($row, $end) === $end - $row + 1) {
                $rows[] = $row;
            }
        }

        return self::together($model, $rows);
    }
}
