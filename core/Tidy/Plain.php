<?php

declare(strict_types=1);

namespace VineShelf\Tidy;

/** What most checks have in common. */
abstract readonly class Plain implements Check
{
    public function mends(): array
    {
        return [];
    }

    public function countsItems(): bool
    {
        return false;
    }

    /** For example "1 object has" or "12 objects have". */
    protected static function many(int $many, string $one, string $several): string
    {
        return $many === 1 ? "1 $one" : number_format($many)." $several";
    }

    /**
     * All rows as one thing.
     *
     * @param array<array-key, int> $rows
     *
     * @return list<Item>
     */
    protected static function together(Model $model, array $rows, string $says = ''): array
    {
        return $rows === [] ? [] : [new Item('all', $says, $model->rows($rows))];
    }
}
