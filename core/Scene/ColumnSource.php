<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Where a scene index reads its packed columns from. */
interface ColumnSource
{
    /** @throws MissingColumn when the index does not hold the column */
    public function column(string $name): string;
}
