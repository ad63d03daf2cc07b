<?php

declare(strict_types=1);

namespace App\Files;

use Illuminate\Filesystem\FilesystemAdapter;
use Illuminate\Support\Facades\Storage;
use League\Flysystem\Local\LocalFilesystemAdapter;

/**
 * Files that are kept: each is there whole or not at all. On a disk of this machine a file is written beside its place, looked at, and
 * renamed; an object store does as much by itself.
 */
final class Kept
{
    /** @throws UnableToKeep when not every byte could be written */
    public static function put(string $file, string $bytes): void
    {
        $disk = self::disk();
        if (! ($disk->getAdapter() instanceof LocalFilesystemAdapter)) {
            if (! $disk->put($file, $bytes)) {
                throw UnableToKeep::file($file, strlen($bytes));
            }

            return;
        }
        $path = $disk->path($file);
        if (! is_dir(dirname($path)) && ! @mkdir(dirname($path), 0o775, true) && ! is_dir(dirname($path))) {
            throw UnableToKeep::file($file, strlen($bytes));
        }
        WholeFile::put($path, $bytes);
    }

    /** Takes a file of this machine over. @throws UnableToKeep when not every byte could be kept; nothing is there then */
    public static function take(string $file, string $path): void
    {
        $disk = self::disk();
        $bytes = (int) @filesize($path);
        if ($disk->getAdapter() instanceof LocalFilesystemAdapter) {
            $disk->makeDirectory(dirname($file));
            if (@rename($path, $disk->path($file))) {
                return;
            }
        }
        $stream = @fopen($path, 'rb');
        if ($stream === false || ! $disk->put($file, $stream) || $disk->size($file) !== $bytes) {
            $disk->delete($file);
            throw UnableToKeep::file($file, $bytes);
        }
    }

    /** Keeps a file under another name as well; the same content there already is left as it is. @throws UnableToKeep */
    public static function copy(string $from, string $to): void
    {
        $disk = self::disk();
        $bytes = $disk->size($from);
        if ($disk->exists($to) && $disk->size($to) === $bytes) {
            return;
        }
        if (! ($disk->getAdapter() instanceof LocalFilesystemAdapter)) {
            if (! $disk->copy($from, $to)) {
                throw UnableToKeep::file($to, $bytes);
            }

            return;
        }
        $disk->makeDirectory(dirname($to));
        $beside = $disk->path($to).'.part-'.bin2hex(random_bytes(6));
        try {
            // The same bytes under two names take no room; where that cannot be, they are copied.
            if (! @link($disk->path($from), $beside) && (! @copy($disk->path($from), $beside) || filesize($beside) !== $bytes)) {
                throw UnableToKeep::file($to, $bytes);
            }
            if (! @rename($beside, $disk->path($to))) {
                throw UnableToKeep::file($to, $bytes);
            }
        } finally {
            if (is_file($beside)) {
                @unlink($beside);
            }
        }
    }

    /** The bytes of a file; null when it is not there, or not as long as it should be. */
    public static function get(string $file, ?int $length = null): ?string
    {
        $bytes = self::disk()->get($file);

        return $bytes === null || ($length !== null && strlen($bytes) !== $length) ? null : $bytes;
    }

    /** Moves a folder to its place, in one step on a disk of this machine. What stands there goes. @throws UnableToKeep */
    public static function move(string $from, string $to): void
    {
        $disk = self::disk();
        $disk->deleteDirectory($to);
        if (! $disk->exists($from) && $disk->files($from) === []) {
            return;
        }
        if ($disk->getAdapter() instanceof LocalFilesystemAdapter) {
            $disk->makeDirectory(dirname($to));
            if (! @rename($disk->path($from), $disk->path($to))) {
                throw UnableToKeep::file($to, 0);
            }

            return;
        }
        foreach ($disk->allFiles($from) as $file) {
            if (! $disk->move($file, $to.substr($file, strlen($from)))) {
                throw UnableToKeep::file($to, 0);
            }
        }
    }

    public static function disk(): FilesystemAdapter
    {
        $disk = Storage::disk('local');

        return $disk instanceof FilesystemAdapter ? $disk : throw new \LogicException('Files are kept on a disk of the framework.');
    }
}
