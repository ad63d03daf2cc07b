<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

use VineShelf\Geometry\Shape;

/** A coarser version of a mesh: some of its triangles, over other of its places. */
final readonly class Simplified
{
    /**
     * @param list<int> $from    the piece of the mesh that each piece of the version comes from
     * @param list<int> $corners three places of the surface for each triangle
     * @param list<int> $kept    the triangle of the surface that each triangle comes from
     */
    private function __construct(
        public Shape $shape,
        public array $from,
        public int $triangles,
        /** Metres that no place of the mesh is farther away from the version. */
        public float $error,
        public array $corners,
        public array $kept,
    ) {}

    /**
     * @param list<int> $corners
     * @param list<int> $kept
     */
    public static function of(Surface $surface, array $corners, array $kept, float $error): self
    {
        $pieces = $surface->pieces;
        [$shape, $from] = $surface->shape($corners, array_map(static fn (int $triangle): int => $pieces[$triangle], $kept));

        return new self($shape, $from, count($kept), $error, $corners, $kept);
    }
}
