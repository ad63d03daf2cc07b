<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/** Bytes of an open file, from a start offset on. */
final readonly class FileBytes implements Bytes
{
    /** @param resource $handle seekable */
    public function __construct(private mixed $handle, private int $start, private int $length) {}

    public static function open(string $path): self
    {
        $handle = is_file($path) && is_readable($path) ? fopen($path, 'rb') : false;
        if ($handle === false) {
            throw UnreadableFile::missing($path);
        }

        // Asked of the open file: what is known of its name may be old.
        return new self($handle, 0, fstat($handle)['size'] ?? 0);
    }

    public function size(): int
    {
        return $this->length;
    }

    public function read(int $offset, int $length): string
    {
        if ($offset < 0 || $length < 0 || $offset + $length > $this->length) {
            throw UnreadableFile::endsEarly('a range of it', $offset + $length, $this->length);
        }
        if ($length === 0) {
            return '';
        }
        fseek($this->handle, $this->start + $offset);
        $read = stream_get_contents($this->handle, $length);
        if ($read === false || strlen($read) !== $length) {
            throw UnreadableFile::endsEarly('a range of it', $length, strlen((string) $read));
        }

        return $read;
    }

    public function slice(int $offset, int $length): self
    {
        return new self($this->handle, $this->start + $offset, $length);
    }
}
