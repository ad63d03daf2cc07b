<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\UnreadableFile;

/** A mesh as the JSON describes it: accessors by attribute, without any vertex. */
final readonly class MeshEntry
{
    /** Coordinates on pictures. */
    private const SETS = ['TEXCOORD_0', 'TEXCOORD_1', 'TEXCOORD_2', 'TEXCOORD_3', 'TEXCOORD_4', 'TEXCOORD_5', 'TEXCOORD_6', 'TEXCOORD_7'];

    /**
     * @param list<array{mode: int, indices: int|null, material: int|null, position: int, normal: int|null, uvs: array<int, int>,
     *     colour: int|null, morphs: int}> $pieces
     */
    private function __construct(
        public string $name,
        public array $pieces,
        /** How many more pieces it has that have no positions. */
        public int $withoutPlaces,
    ) {}

    public static function read(Entry $entry): self
    {
        $pieces = [];
        $withoutPlaces = 0;
        foreach ($entry->entries('primitives', "primitive of $entry->place,") as $piece) {
            $attributes = $piece->entry('attributes') ?? throw UnreadableFile::because(ucfirst($piece->place).' has no attributes.');
            if (! $attributes->has('POSITION')) {
                $withoutPlaces++;

                continue;
            }
            $uvs = [];
            foreach (self::SETS as $set => $name) {
                if ($attributes->has($name)) {
                    $uvs[$set] = $attributes->required($name);
                }
            }
            $mode = $piece->whole('mode', 4);
            if ($mode > 6) {
                throw UnreadableFile::because(ucfirst($piece->place)." has mode $mode; glTF has 0 to 6.");
            }
            $pieces[] = [
                'mode' => $mode,
                'indices' => $piece->index('indices'),
                'material' => $piece->index('material'),
                'position' => $attributes->required('POSITION'),
                'normal' => $attributes->index('NORMAL'),
                'uvs' => $uvs,
                'colour' => $attributes->index('COLOR_0'),
                'morphs' => count($piece->entriesRaw('targets')),
            ];
        }

        return new self(mb_scrub($entry->text('name')), $pieces, $withoutPlaces);
    }
}
