<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

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
}
