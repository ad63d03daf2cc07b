<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VineShelf\Formats\Bytes;

/** Counts what is read of it. */
final class CountedBytes implements Bytes
{
    public int $read = 0;

    public function __construct(private readonly string $bytes) {}

    public function size(): int
    {
        return strlen($this->bytes);
    }

    public function read(int $offset, int $length): string
    {
        $this->read += $length;

        return substr($this->bytes, $offset, $length);
    }
}
