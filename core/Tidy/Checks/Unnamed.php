<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Objects without a name. */
final readonly class Unnamed extends Plain
{
    public function id(): string
    {
        return 'unnamed';
    }

    public function title(int $many): string
    {
        return self::many($many, 'object has no name', 'objects have no name');
    }

    public function why(): string
    {
        return 'They cannot be found by typing, and rules that go by names pass them over.';
    }

    public function mends(): array
    {
        return ['name' => 'Name them after class, group or material'];
    }

    public function find(Model $model): array
    {
        return self::together(
            $model,
            array_filter(array_keys($model->names), static fn (int $row): bool => $row > 0 && trim($model->names[$row]) === ''),
        );
    }
}
