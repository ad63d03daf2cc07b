<?php

declare(strict_types=1);

namespace App\Changes;

use VineShelf\Scene\ColumnSource;

/** An index with some columns already changed. */
final readonly class ChangedColumns implements ColumnSource
{
    /** @param array<string, string> $changed */
    public function __construct(private array $changed, private ColumnSource $others) {}

    public function column(string $name): string
    {
        return $this->changed[$name] ?? $this->others->column($name);
    }
}
