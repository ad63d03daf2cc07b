<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** What is known of a mesh once it stands in a pack. */
final readonly class PackedMesh
{
    public function __construct(
        public int $number,
        /** In the mesh's own axes, metres. */
        public Box $box,
        public int $triangles,
        public int $vertices,
        /** Stored bytes, uncompressed. */
        public int $bytes,
        /** Of all that makes it this mesh; equal for identical ones. */
        public string $hash,
        /** Its entry of {@see ShapeIndex}. */
        public string $shape,
    ) {}
}
