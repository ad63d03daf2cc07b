<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

use VineShelf\Geometry\PackedShape;

/** A coarser version of a mesh, as it goes into a pack. */
final readonly class Version
{
    public function __construct(
        public PackedShape $shape,
        public int $triangles,
        /** Metres that no place of the mesh is farther away from it. */
        public float $error,
    ) {}
}
