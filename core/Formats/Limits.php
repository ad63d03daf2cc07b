<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/** What a single file may ask of the importer. */
final readonly class Limits
{
    public function __construct(
        /** Bytes of the file, and of everything unpacked from it. */
        public int $bytes = 4_294_967_296,
        /** Bytes of the JSON of one file. */
        public int $jsonBytes = 536_870_912,
        /** Bytes of one node, mesh or other entry of the JSON. */
        public int $elementBytes = 16_777_216,
        /** Objects in the scene that opens. */
        public int $objects = 1_000_000,
        /** Levels of nesting. */
        public int $depth = 1000,
        /** Distinct meshes. */
        public int $meshes = 120_000,
        /** Vertices of one mesh. */
        public int $meshVertices = 5_000_000,
        /** Times that meshes are drawn in all, by instancing too. */
        public int $placements = 1_000_000,
        /** Bytes of one compressed buffer view, unpacked. */
        public int $viewBytes = 268_435_456,
        /** Bytes of all compressed buffer views, unpacked. */
        public int $unpackedBytes = 1_073_741_824,
        /** Bytes of one texture. */
        public int $textureBytes = 67_108_864,
        /** Files inside a zip. */
        public int $zipFiles = 10_000,
        /** Unpacked bytes per packed byte of a zip. */
        public int $zipRatio = 200,
        /** The same of all files in a zip together, where they are more than {@see $zipFree}. */
        public int $zipRatioInAll = 100,
        /** Bytes that a zip may unpack to however small it is. */
        public int $zipFree = 4_194_304,
    ) {}
}
