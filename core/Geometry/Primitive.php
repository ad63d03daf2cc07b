<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** One piece of a mesh: what is drawn in one go with one material. All strings are packed little-endian. */
final readonly class Primitive
{
    public function __construct(
        public PrimitiveKind $kind,
        /** 32-bit floats x, y, z per vertex, metres in the mesh's own axes. */
        public string $positions,
        /** Unsigned 32-bit numbers: three per triangle, two per line, one per point. */
        public string $indices,
        /** 32-bit floats x, y, z per vertex, or null for flat shading. */
        public ?string $normals = null,
        /** 32-bit floats u, v per vertex, with any texture transform already applied. */
        public ?string $uvs = null,
        /** Four bytes red, green, blue, alpha per vertex. */
        public ?string $colours = null,
        public ?int $material = null,
    ) {}

    public function vertices(): int
    {
        return intdiv(strlen($this->positions), 12);
    }

    public function triangles(): int
    {
        return $this->kind === PrimitiveKind::Triangles ? intdiv(strlen($this->indices), 12) : 0;
    }
}
