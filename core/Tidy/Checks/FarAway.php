<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts that stand far from all others. */
final readonly class FarAway extends Plain
{
    /** So many times as far from the middle as nine tenths of all parts. */
    private const TIMES = 10.0;

    /** Metres. */
    private const LEAST = 50.0;

    public function id(): string
    {
        return 'far-away';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part stands far from everything else', 'parts stand far from everything else');
    }

    public function why(): string
    {
        return '“Fit all” shows a dot because of them, and depth is less exact everywhere.';
    }

    public function find(Model $model): array
    {
        $middles = [];
        for ($row = 1, $count = $model->scene->count(); $row <= $count; $row++) {
            $box = $model->scene->triangles($row, $row) > 0 && $model->scene->end($row) === $row ? $model->facts->box($row) : null;
            if ($box !== null) {
                $middles[$row] = [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2, ($box[2] + $box[5]) / 2];
            }
        }
        if (count($middles) < 10) {
            return [];
        }
        $middle = [];
        foreach ([0, 1, 2] as $axis) {
            $along = array_column($middles, $axis);
            sort($along);
            $middle[] = $along[intdiv(count($along), 2)];
        }
        $far = array_map(
            static fn (array $at): float => sqrt(($at[0] - $middle[0]) ** 2 + ($at[1] - $middle[1]) ** 2 + ($at[2] - $middle[2]) ** 2),
            $middles,
        );
        $sorted = array_values($far);
        sort($sorted);
        $limit = max(self::LEAST, self::TIMES * $sorted[(int) floor(0.9 * (count($sorted) - 1))]);

        return self::together($model, array_keys(array_filter($far, static fn (float $distance): bool => $distance > $limit)));
    }
}
