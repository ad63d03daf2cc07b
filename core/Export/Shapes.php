<?php

declare(strict_types=1);

namespace VineShelf\Export;

use VineShelf\Geometry\PackedShape;

/** Where an export has meshes from. */
interface Shapes
{
    /** The mesh with all that it is drawn with; null when it is not there. */
    public function fine(int $mesh): ?PackedShape;

    /** The version that does for the rung Coarse, or the mesh itself. */
    public function coarse(int $mesh): ?PackedShape;
}
