<?php

declare(strict_types=1);

namespace VineShelf\Formats;

use VineShelf\Geometry\Primitive;

/** What a file holds, in the words of the job. Objects are in depth-first order and counted from 1. */
interface Intake
{
    public function format(): string;

    public function objects(): TakenObjects;

    /** @return array<int, TakenMesh> meshes that the scene draws, by the file's own index */
    public function meshes(): array;

    /** @return list<TakenMaterial> */
    public function materials(): array;

    /** @return list<TakenTexture> */
    public function textures(): array;

    /** @return list<string> what was not understood or looks wrong, a sentence each */
    public function warnings(): array;

    /**
     * @return list<Primitive>
     *
     * @throws UnreadableFile
     */
    public function primitives(int $mesh): array;

    /**
     * The bytes of a texture's picture, null when it is not in the file.
     *
     * @throws UnreadableFile
     */
    public function picture(int $texture): ?string;
}
