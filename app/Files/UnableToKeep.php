<?php

declare(strict_types=1);

namespace App\Files;

/** A file could not be kept: mostly because the disk is full. */
final class UnableToKeep extends \RuntimeException
{
    /** @param int $bytes 0 where nobody knows how many they would have been */
    public static function file(string $file, int $bytes): self
    {
        $what = $bytes === 0 ? 'a file' : number_format(max(1, intdiv($bytes, 1000))).' kB';

        return new self("The server could not keep $what: its disk is full or not writable.", 0, new \RuntimeException($file));
    }
}
