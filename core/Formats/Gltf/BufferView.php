<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\UnreadableFile;

/** A stretch of a buffer. When it is compressed, count and mode say how to unpack it to `stride * count` bytes. */
final readonly class BufferView
{
    public function __construct(
        public int $buffer,
        public int $offset,
        public int $length,
        /** Bytes from one element to the next, 0 for tightly packed. */
        public int $stride,
        public ?string $mode = null,
        public int $count = 0,
        public string $filter = 'NONE',
    ) {}

    /** @throws UnreadableFile */
    public static function read(Entry $entry): self
    {
        $packed = $entry->extension('EXT_meshopt_compression');
        $from = $packed ?? $entry;

        return new self(
            $from->required('buffer'),
            $from->whole('byteOffset', 0),
            $from->required('byteLength'),
            $packed === null ? $entry->whole('byteStride', 0) : $packed->required('byteStride'),
            $packed?->text('mode'),
            $packed?->required('count') ?? 0,
            $packed?->text('filter', 'NONE') ?? 'NONE',
        );
    }
}
