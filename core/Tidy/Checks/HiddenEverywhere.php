<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Scene\Kind;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts that nothing shows. */
final readonly class HiddenEverywhere extends Plain
{
    public function id(): string
    {
        return 'hidden';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part is hidden everywhere', 'parts are hidden everywhere');
    }

    public function why(): string
    {
        return 'Neither your desk, nor pictures, nor any view shows them: they may be forgotten.';
    }

    public function find(Model $model): array
    {
        return self::together(
            $model,
            array_filter($model->hidden->rows(), static fn (int $row): bool => $model->scene->kind($row) !== Kind::Group),
        );
    }
}
