<?php

declare(strict_types=1);

namespace App\Files;

/** A file could not be kept: mostly because the disk is full. */
final class UnableToKeep extends \RuntimeException
{
    public static function file(string $file, int $bytes): self
    {
        return new self(
            'The server could not keep '.number_format(max(1, intdiv($bytes, 1000))).' kB: its disk is full or not writable.',
            0,
            new \RuntimeException($file),
        );
    }
}
