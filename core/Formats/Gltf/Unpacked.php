<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\FileBytes;
use VineShelf\Formats\UnreadableFile;

/**
 * Compressed buffer views as they were before: each is decoded once, however many meshes lie in it and in whatever order they are
 * read. What has been decoded stays in memory up to 64 MB, and in a temporary file from there on.
 */
final class Unpacked
{
    private const IN_MEMORY = 67_108_864;

    /** @var resource|null */
    private mixed $store = null;

    private int $size = 0;

    /** @var array<int, FileBytes> by view */
    private array $views = [];

    /**
     * @param int               $index  number of the view
     * @param callable(): string $packed its bytes in the file
     */
    public function of(int $index, BufferView $view, callable $packed): FileBytes
    {
        return $this->views[$index] ??= $this->keep(
            Meshopt::decode($packed(), $view->count, $view->stride, $view->mode ?? '', $view->filter),
        );
    }

    private function keep(string $bytes): FileBytes
    {
        $this->store ??= fopen('php://temp/maxmemory:'.self::IN_MEMORY, 'w+b') ?: null;
        $length = strlen($bytes);
        if ($this->store === null || fseek($this->store, $this->size) !== 0 || @fwrite($this->store, $bytes) !== $length) {
            throw UnreadableFile::because('There is no room to unpack its compressed data.');
        }
        $start = $this->size;
        $this->size += $length;

        return new FileBytes($this->store, $start, $length);
    }
}
