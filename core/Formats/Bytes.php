<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/** A stretch of bytes that can be read from anywhere. */
interface Bytes
{
    public function size(): int;

    /** @throws UnreadableFile when the range is not all there */
    public function read(int $offset, int $length): string;
}
