<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Scene\Drawn;
use VineShelf\Scene\Scene;

/** "drawn": {@see Drawn}, placements as they travel to the canvas. */
final class DrawnColumn implements Family
{
    public function name(): string
    {
        return 'drawn';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['records', 'meshrows'];
    }

    public function make(Scene $scene, string $of): string
    {
        return Drawn::pack($scene->column('records'), $scene->column('meshrows'));
    }
}
