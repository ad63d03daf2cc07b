<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Layers\Layer;
use VineShelf\Scene\Kind;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Objects that nobody has filed, and that stand in no group that somebody has. */
final readonly class Unsorted extends Plain
{
    public function id(): string
    {
        return 'unsorted';
    }

    public function title(int $many): string
    {
        return self::many($many, 'object is in Unsorted', 'objects are in Unsorted');
    }

    public function why(): string
    {
        return 'What has no layer is shown, hidden and locked with everything else that has none. Sorting rules can file it.';
    }

    public function find(Model $model): array
    {
        $scene = $model->scene;
        $rows = [];
        foreach (
            $scene
                ->layers()
                ->rowsOf([Layer::UNSORTED => true])
                ->rows() as $row
        ) {
            if ($scene->kind($row) !== Kind::Group && UnsortedInFiled::home($scene, $row) === 0) {
                $rows[] = $row;
            }
        }

        return self::together($model, $rows);
    }
}
