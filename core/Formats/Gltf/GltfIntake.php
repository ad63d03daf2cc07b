<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Intake;
use VineShelf\Formats\TakenMaterial;
use VineShelf\Formats\TakenObjects;
use VineShelf\Formats\TakenTexture;

final readonly class GltfIntake implements Intake
{
    /**
     * @param list<TakenMaterial> $materials
     * @param list<TakenTexture>  $textures
     * @param list<int|null>      $sources   image by texture
     * @param list<string>        $warnings
     */
    public function __construct(
        private string $format,
        private TakenObjects $objects,
        private MeshReader $meshes,
        private array $materials,
        private array $textures,
        private array $sources,
        private Pictures $pictures,
        private array $warnings,
    ) {}

    public function format(): string
    {
        return $this->format;
    }

    public function objects(): TakenObjects
    {
        return $this->objects;
    }

    public function meshes(): array
    {
        return $this->meshes->used();
    }

    public function materials(): array
    {
        return $this->materials;
    }

    public function textures(): array
    {
        return $this->textures;
    }

    public function warnings(): array
    {
        return $this->warnings;
    }

    public function primitives(int $mesh): array
    {
        return $this->meshes->primitives($mesh);
    }

    public function picture(int $texture): ?string
    {
        $image = $this->sources[$texture] ?? null;

        return $image === null ? null : $this->pictures->bytes($image);
    }
}
