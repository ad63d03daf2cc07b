<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts that one object does not deserve so many triangles for. */
final readonly class TooHeavy extends Plain
{
    /** Triangles of a mesh; a part that is drawn once with that many is one hundredth of what a machine can draw. */
    private const LEAST = 20_000;

    /** Share of all that is drawn. */
    private const SHARE = 0.02;

    public function id(): string
    {
        return 'too-heavy';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part weighs more than it should', 'parts weigh more than they should');
    }

    public function why(): string
    {
        return 'One thing takes a fiftieth of everything that is drawn. Weight › Too fine puts coarser meshes in their place.';
    }

    public function find(Model $model): array
    {
        $scene = $model->scene;
        $all = $scene->count() === 0 ? 0 : $scene->triangles(1, $scene->count());
        $least = max(self::LEAST, (int) ceil(self::SHARE * $all));
        $rows = $model->facts
            ->ranked('triangles')
            ->between($least, INF)
            ->rows();
        usort($rows, static fn (int $a, int $b): int => $scene->triangles($b, $b) <=> $scene->triangles($a, $a));

        return array_map(
            static fn (int $row): Item => new Item(
                (string) $scene->number($row),
                ($model->names[$row] === '' ? 'unnamed' : $model->names[$row]).
                    ': '.
                    number_format($scene->triangles($row, $row)).
                    ' triangles',
                $model->rows([$row]),
            ),
            $rows,
        );
    }
}
