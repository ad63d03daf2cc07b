<?php

declare(strict_types=1);

namespace VineShelf\Weights;

/** What something costs to draw. */
final readonly class Weight
{
    public function __construct(
        /** Every instance counted. */
        public int $triangles = 0,
        /** Every instance counted. */
        public int $vertices = 0,
        /** What the graphics card is told to draw one by one: the pieces of meshes, every instance counted. Boxes take none. */
        public int $calls = 0,
        /** Bytes of meshes, each once. */
        public int $geometry = 0,
        /** Bytes of pictures as they stand on the graphics card, each once. */
        public int $textures = 0,
    ) {}

    public function bytes(): int
    {
        return $this->geometry + $this->textures;
    }
}
