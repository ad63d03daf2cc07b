<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Facts\Measure;
use VineShelf\Facts\Ranked;
use VineShelf\Scene\Scene;

/**
 * "ranked.C": {@see Ranked}, of a measure, kind, mesh, class, surfaces, stem or property.N (its codes); "ranked.number.N" of the numbers
 * that property N has.
 */
final class RankedColumns implements Family
{
    public function name(): string
    {
        return 'ranked';
    }

    public function has(string $of): bool
    {
        return Measure::tryFrom($of) !== null || preg_match('~^(kind|mesh|class|surfaces|stem|(property|number)\.\d+)$~D', $of) === 1;
    }

    public function needs(string $of): array
    {
        return match (true) {
            Measure::tryFrom($of) !== null => Values::needsOfNumbers($of),
            str_starts_with($of, 'number.') => Values::needsOfNumbers('property.'.substr($of, 7)),
            default => [$of],
        };
    }

    public function make(Scene $scene, string $of): string
    {
        return Ranked::pack($this->ranks($scene, $of), $scene->count());
    }

    /** @return array<int, int|float> by row */
    private function ranks(Scene $scene, string $of): array
    {
        if (Measure::tryFrom($of) !== null) {
            return Values::numbers($scene, $of);
        }
        if (str_starts_with($of, 'number.')) {
            return Values::numbers($scene, 'property.'.substr($of, 7));
        }
        $codes = Values::codes($scene, $of);
        unset($codes[0]);

        return $of === 'kind' ? $codes : array_filter($codes);
    }
}
