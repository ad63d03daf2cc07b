<?php

declare(strict_types=1);

namespace VineShelf\Formats;

final readonly class TakenMaterial
{
    public function __construct(
        public string $name,
        /** @var array{float, float, float, float} red, green, blue, alpha, linear, 0 to 1 */
        public array $colour,
        /** Index into the textures of the file. */
        public ?int $texture,
        public float $metallic,
        public float $roughness,
        /** "OPAQUE", "MASK" or "BLEND". */
        public string $alpha,
        public float $cutoff,
        public bool $doubleSided,
        /** Shown in its colour, whatever the light. */
        public bool $unlit = false,
        /** @var array{float, float, float} red, green, blue of the light that it gives, linear, 0 to 1 */
        public array $emission = [0.0, 0.0, 0.0],
        /** Index into the textures of the file: a picture whose colours tilt the surface, in glTF's way. */
        public ?int $normalMap = null,
        /** How much of the tilt along the surface is meant: 1 for all. */
        public float $normalScale = 1.0,
    ) {}
}
