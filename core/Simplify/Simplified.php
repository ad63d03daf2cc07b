<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

use VineShelf\Geometry\Shape;

/** A coarser version of a mesh. */
final readonly class Simplified
{
    /** @param list<int> $from the piece of the mesh that each piece of the version comes from */
    public function __construct(
        public Shape $shape,
        public array $from,
        public int $triangles,
        /** Metres that no place of the mesh is farther away from the version. */
        public float $error,
    ) {}
}
