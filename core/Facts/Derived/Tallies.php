<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Facts\Tally;
use VineShelf\Scene\Scene;

/** "tally.C": {@see Tally} of layer, source, kind, class, surfaces, or kind and class. */
final class Tallies implements Family
{
    private const NEEDS = [
        'layer' => ['layer'],
        'source' => ['source'],
        'kind' => ['kind'],
        'class' => ['class'],
        'surfaces' => ['surfaces'],
        'kindclass' => ['kind', 'class'],
    ];

    public function name(): string
    {
        return 'tally';
    }

    public function has(string $of): bool
    {
        return isset(self::NEEDS[$of]);
    }

    public function needs(string $of): array
    {
        return [...self::NEEDS[$of], 'triangles'];
    }

    public function make(Scene $scene, string $of): string
    {
        return Tally::pack($scene, $of);
    }
}
