<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Layers\Layer;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Scene;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts in Unsorted whose group is filed: some people file groups alone. */
final readonly class UnsortedInFiled extends Plain
{
    public function id(): string
    {
        return 'unsorted-in-filed';
    }

    public function title(int $many): string
    {
        return self::many(
            $many,
            'part is in Unsorted although its group is filed',
            'parts are in Unsorted although their groups are filed',
        );
    }

    public function why(): string
    {
        return 'A layer holds what is filed under it, not what groups under it hold: these stay when their group’s layer is hidden.';
    }

    public function mends(): array
    {
        return ['file-with-group' => 'File them with their groups'];
    }

    public function find(Model $model): array
    {
        return self::together($model, self::rows($model->scene, true));
    }

    /**
     * Parts and the like in Unsorted, in the order of the model.
     *
     * @param bool $filed whether a group above them is to be filed, or none
     * @return list<int> rows
     */
    public static function rows(Scene $scene, bool $filed): array
    {
        $rows = [];
        foreach (
            $scene
                ->layers()
                ->rowsOf([Layer::UNSORTED => true])
                ->rows() as $row
        ) {
            if ($scene->kind($row) !== Kind::Group && (self::home($scene, $row) !== 0) === $filed) {
                $rows[] = $row;
            }
        }

        return $rows;
    }

    /** The layer of the nearest group above that is filed, 0 for none. */
    public static function home(Scene $scene, int $row): int
    {
        for ($above = $scene->parent($row); $above !== 0; $above = $scene->parent($above)) {
            $layer = $scene->layers()->at($above);
            if ($layer !== Layer::UNSORTED) {
                return $layer;
            }
        }

        return 0;
    }
}
