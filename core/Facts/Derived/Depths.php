<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** "depths": uint32 per row: how deep it is nested, 1 for a root. */
final class Depths implements Family
{
    public function name(): string
    {
        return 'depths';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['parent'];
    }

    public function make(Scene $scene, string $of): string
    {
        $depths = [0];
        foreach (Packed::uint32($scene->column('parent'), 0, $scene->count() + 1) as $row => $parent) {
            if ($row > 0) {
                $depths[] = $depths[$parent] + 1;
            }
        }

        return pack('V*', ...$depths);
    }
}
