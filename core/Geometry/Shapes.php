<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** Where the shapes of meshes are read from. */
interface Shapes
{
    /** @return Shape|null null when the mesh has no geometry */
    public function shape(int $mesh): ?Shape;
}
