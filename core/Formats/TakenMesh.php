<?php

declare(strict_types=1);

namespace VineShelf\Formats;

use VineShelf\Scene\Kind;

final readonly class TakenMesh
{
    public function __construct(
        public string $name,
        /** Part, Curve or Points: what an object that draws it is. */
        public Kind $kind,
        public int $triangles,
        public int $vertices,
        /** Pieces that are each drawn in one go. */
        public int $pieces,
        /** The first material, by the file's own index. */
        public ?int $material,
        /** @var list<int> every material it uses, by the file's own index */
        public array $materials = [],
    ) {}
}
