<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\ColumnSource;
use VineShelf\Scene\MissingColumn;
use VineShelf\Scene\Scene;

/** Columns of an index, and those that follow from them, worked out when they are first asked for. */
final class DerivedColumns implements ColumnSource
{
    /** @var array<string, string> */
    private array $made = [];

    /** @param (\Closure(string, string): void)|null $keep given the name and bytes of a column that was worked out */
    public function __construct(private readonly ColumnSource $columns, private readonly ?\Closure $keep = null) {}

    public function column(string $name): string
    {
        if (isset($this->made[$name])) {
            return $this->made[$name];
        }
        try {
            return $this->columns->column($name);
        } catch (MissingColumn $missing) {
            if (! Derived::has($name)) {
                throw $missing;
            }
            $made = Derived::make(new Scene($this), $name);
            if ($this->keep !== null) {
                ($this->keep)($name, $made);
            }

            return $this->made[$name] = $made;
        }
    }
}
