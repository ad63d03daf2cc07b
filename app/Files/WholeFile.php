<?php

declare(strict_types=1);

namespace App\Files;

/** A file of this machine that is there whole, or as it was before: it is written beside its place, looked at, and renamed. */
final class WholeFile
{
    /**
     * @param \Closure(string $beside): int $write writes to the path that it is given, and says how many bytes that were
     *
     * @return int bytes
     *
     * @throws UnableToKeep when not every byte could be written
     */
    public static function write(string $path, \Closure $write): int
    {
        $beside = $path.'.part-'.bin2hex(random_bytes(6));
        try {
            $bytes = $write($beside);
            clearstatcache(true, $beside);
            if (@filesize($beside) !== $bytes || ! @rename($beside, $path)) {
                throw UnableToKeep::file(basename($path), $bytes);
            }

            return $bytes;
        } finally {
            is_file($beside) && @unlink($beside);
        }
    }

    /** @throws UnableToKeep */
    public static function put(string $path, string $bytes): void
    {
        self::write($path, static function (string $beside) use ($bytes): int {
            @file_put_contents($beside, $bytes);

            return strlen($bytes);
        });
    }
}
