<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Scene\Packed;
use VineShelf\Scene\Planes;
use VineShelf\Scene\Scene;

/**
 * "planes.triangles" and "planes.placements": {@see Planes} of the triangles that each row draws at Full, and of how often its mesh is
 * placed.
 */
final class PlaneColumns implements Family
{
    public function name(): string
    {
        return 'planes';
    }

    public function has(string $of): bool
    {
        return $of === 'triangles' || $of === 'placements';
    }

    public function needs(string $of): array
    {
        return [$of === 'triangles' ? 'triangles' : 'recordAt'];
    }

    public function make(Scene $scene, string $of): string
    {
        $count = $scene->count();
        $packed = $scene->column($this->needs($of)[0]);
        /** @var list<int> $sums of the rows before, one more than rows */
        $sums = $of === 'triangles' ? array_values((array) unpack('P*', $packed)) : array_slice(Packed::uint32($packed, 0, $count + 2), 1);
        $numbers = [];
        for ($row = 1; $row <= $count; $row++) {
            $numbers[] = $sums[$row] - $sums[$row - 1];
        }

        return Planes::pack($count, $numbers);
    }
}
