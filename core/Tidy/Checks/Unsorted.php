<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

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
        return self::together($model, UnsortedInFiled::rows($model->scene, false));
    }
}
