<?php

declare(strict_types=1);

namespace VineShelf\Export;

/** Where an export has materials and pictures from. */
interface Surfaces
{
    /**
     * @return array{name: string, colour: list<float>, texture: int|null, metallic: float, roughness: float, alpha: string,
     *     cutoff: float, doubleSided: bool, unlit: bool, emission: list<float>, normalMap: int|null, normalScale: float}|null
     */
    public function material(int $number): ?array;

    /**
     * @return array{string, string, array<string, int>}|null media type and bytes of a picture; how it is wrapped and filtered, as samplers
     *     of glTF have it, empty where nothing is said
     */
    public function picture(int $number): ?array;
}
