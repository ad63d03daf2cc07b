<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

use VineShelf\Geometry\Shape;

/** Where the shapes of meshes and of their coarser versions are read from. */
interface VersionedShapes
{
    /**
     * The coarsest that does.
     *
     * @param float $error metres, in the mesh's own measure, that no place may be farther off
     *
     * @return Shape|null null when the mesh has no geometry
     */
    public function within(int $mesh, float $error): ?Shape;

    /** What the rung Coarse draws, {@see \VineShelf\Scene\MeshVersions}. */
    public function coarse(int $mesh): ?Shape;
}
