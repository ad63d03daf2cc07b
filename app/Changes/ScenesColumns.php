<?php

declare(strict_types=1);

namespace App\Changes;

use VineShelf\Scene\ColumnSource;
use VineShelf\Scene\Scene;

/** The columns of a scene that was read, for another one that differs in some. */
final readonly class ScenesColumns implements ColumnSource
{
    public function __construct(private Scene $scene) {}

    public function column(string $name): string
    {
        return $this->scene->column($name);
    }
}
