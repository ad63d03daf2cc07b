<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Columns that were just built. */
final readonly class ColumnsInMemory implements ColumnSource
{
    /** @param array<string, string> $columns packed column by name */
    public function __construct(public array $columns) {}

    public function column(string $name): string
    {
        return $this->columns[$name] ?? throw MissingColumn::named($name);
    }
}
