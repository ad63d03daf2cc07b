<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Facts\Measure;
use VineShelf\Facts\Order;
use VineShelf\Facts\Ordered;
use VineShelf\Scene\Scene;

/** "order.C.up" and "order.C.down": {@see Ordered}, by a measure, name, kind, class, material, source or property.N. */
final class Orders implements Family
{
    public function name(): string
    {
        return 'order';
    }

    public function has(string $of): bool
    {
        $by = self::by($of);

        return preg_match('~\.(up|down)$~D', $of) === 1 &&
            (Measure::tryFrom($by) !== null || preg_match('~^(name|kind|class|material|source|property\.\d+)$~D', $by) === 1);
    }

    public function needs(string $of): array
    {
        return Values::needsOfSortKeys(self::by($of));
    }

    public function make(Scene $scene, string $of): string
    {
        return Ordered::pack(Order::by(Values::sortKeys($scene, self::by($of)), $scene->count(), str_ends_with($of, '.down')));
    }

    private static function by(string $of): string
    {
        return substr($of, 0, (int) strrpos($of, '.'));
    }
}
