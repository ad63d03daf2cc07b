<?php

declare(strict_types=1);

namespace VineShelf\Formats;

final readonly class BytesInMemory implements Bytes
{
    public function __construct(private string $bytes) {}

    public function size(): int
    {
        return strlen($this->bytes);
    }

    public function read(int $offset, int $length): string
    {
        if ($offset < 0 || $length < 0 || $offset + $length > strlen($this->bytes)) {
            throw UnreadableFile::endsEarly('a buffer', $offset + $length, strlen($this->bytes));
        }

        return substr($this->bytes, $offset, $length);
    }
}
