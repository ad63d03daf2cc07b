<?php

declare(strict_types=1);

namespace App\Intake;

use VineShelf\Formats\Intake;
use VineShelf\Layers\FilingPlan;
use VineShelf\Tags\TaggingPlan;

/** Everything that can be worked out of a file without touching the project. */
final readonly class Prepared
{
    /**
     * @param array<int, int>         $meshes    project mesh number by the source's own index
     * @param array<int, int>         $materials project material number by the source's own index
     * @param array<int, string|null> $textures  file by the source's own index, where it will lie in the end
     * @param int                     $kept      bytes on the disk
     */
    public function __construct(
        public Intake $intake,
        public FilingPlan $plan,
        public Packer $packer,
        public array $meshes,
        public array $materials,
        public array $textures,
        public int $kept,
        public TaggingPlan $tagging,
        /** Where the file as it came is kept. */
        public string $original = '',
    ) {}
}
