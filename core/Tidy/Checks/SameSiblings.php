<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Objects that stand beside each other and are called the same. */
final readonly class SameSiblings extends Plain
{
    public function id(): string
    {
        return 'same-siblings';
    }

    public function title(int $many): string
    {
        return self::many($many, 'object is called like one beside it', 'objects are called like others beside them');
    }

    public function why(): string
    {
        return 'The next version of the file is matched by names, and by the order among those of one name: they may be mixed up.';
    }

    public function mends(): array
    {
        return ['number' => 'Number them'];
    }

    public function find(Model $model): array
    {
        $first = $rows = [];
        $parents = $model->scene->column('parent');
        for ($row = 1, $count = $model->scene->count(); $row <= $count; $row++) {
            if ($model->names[$row] === '') {
                continue;
            }
            $key = substr($parents, 4 * $row, 4).mb_strtolower($model->names[$row]);
            if (! isset($first[$key])) {
                $first[$key] = $row;
            } else {
                $rows[$first[$key]] = $first[$key];
                $rows[$row] = $row;
            }
        }

        return self::together($model, $rows);
    }
}
