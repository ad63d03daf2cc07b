<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Facts\Measure;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts that draw something of no size. */
final readonly class ZeroSize extends Plain
{
    /** Metres: less than a hair. */
    private const LEAST = 1e-5;

    public function id(): string
    {
        return 'zero-size';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part has no size', 'parts have no size');
    }

    public function why(): string
    {
        return 'They are drawn and never seen: scaled to nothing, or made of triangles in one point.';
    }

    public function mends(): array
    {
        return ['delete' => 'Delete them'];
    }

    public function find(Model $model): array
    {
        $rows = [];
        foreach ($model->facts->ranked('size')->between(0.0, self::LEAST)->rows() as $row) {
            if (
                $model->scene->end($row) === $row &&
                $model->scene->triangles($row, $row) > 0 &&
                $model->facts->measure(Measure::Size, $row) <= self::LEAST
            ) {
                $rows[] = $row;
            }
        }

        return self::together($model, $rows);
    }
}
