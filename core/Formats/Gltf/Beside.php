<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\FileBytes;
use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;

/** The files that a .gltf names, in its own folder or below it. Nothing elsewhere is ever opened. */
final readonly class Beside
{
    private string $folder;

    public function __construct(string $path)
    {
        $this->folder = (string) realpath(dirname($path));
    }

    /** The file that a relative address names; null when there is none, or it is not in the folder or below it. */
    public function file(string $uri): ?string
    {
        if (preg_match('~^[a-z][a-z0-9+.-]*:|^//|^[/\\\\]~i', $uri) === 1) {
            return null;
        }
        $path = realpath($this->folder.'/'.rawurldecode($uri));

        return $path !== false && is_file($path) && str_starts_with($path, rtrim($this->folder, '/').'/') ? $path : null;
    }

    /**
     * What a .gltf names, and is there.
     *
     * @return array<string, string> file by its path from the folder of the .gltf
     *
     * @throws UnreadableFile
     */
    public static function named(string $path, Limits $limits = new Limits): array
    {
        $beside = new self($path);
        $json = FileBytes::open($path);
        $named = [];
        foreach (
            (new JsonStream($json, $limits, new Lifted($json)))->members(['buffers', 'images', 'nodes', 'meshes']) as [$member, $value]
        ) {
            $uri = in_array($member, ['buffers', 'images'], true) && is_array($value) ? $value['uri'] ?? null : null;
            $file = is_string($uri) ? $beside->file($uri) : null;
            if ($file !== null) {
                $named[substr($file, strlen(rtrim($beside->folder, '/')) + 1)] = $file;
            }
        }

        return $named;
    }
}
