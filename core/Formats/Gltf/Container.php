<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Bytes;
use VineShelf\Formats\BytesInMemory;
use VineShelf\Formats\FileBytes;
use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;

/** The ways a glTF file comes: binary, plain JSON with its data embedded or, from the command line, beside it, or a zip of all that. */
final class Container
{
    private int $unpacked = 0;

    /** @var array<string, string> path inside the zip by lower-case path */
    private array $zipped = [];

    private string $folder = '';

    /** Embedded data that stays in the JSON until it is asked for. */
    public readonly Lifted $lifted;

    private function __construct(
        public readonly string $format,
        public readonly Bytes $json,
        private readonly ?Bytes $binary,
        private readonly Limits $limits,
        private readonly ?\ZipArchive $zip = null,
        private readonly ?Beside $beside = null,
    ) {
        $this->lifted = new Lifted($json);
    }

    /** @param bool $beside whether a .gltf may use files in its own folder or below it */
    public static function open(string $path, Limits $limits, bool $beside = false): self
    {
        $file = FileBytes::open($path);
        if ($file->size() > $limits->bytes) {
            throw UnreadableFile::tooMuch('too many bytes', $file->size(), $limits->bytes);
        }
        if ($file->size() === 0) {
            throw UnreadableFile::because('The file is empty.');
        }
        $start = $file->read(0, min(64, $file->size()));

        return match (true) {
            str_starts_with($start, 'glTF') => self::openBinary($file, $limits),
            str_starts_with($start, "PK\x03\x04"), str_starts_with($start, "PK\x05\x06") => self::openZip($path, $limits),
            preg_match('~^(?:\xEF\xBB\xBF)?\s*\{~', $start) === 1 => self::openJson(
                $file,
                $limits,
                'gltf',
                null,
                $beside ? new Beside($path) : null,
            ),
            default => throw UnreadableFile::unknownFormat(),
        };
    }

    /** Whether there is something behind the address of a buffer or an image. */
    public function has(string $uri): bool
    {
        return str_starts_with($uri, 'data:') || $this->inside($uri) !== null || $this->beside?->file($uri) !== null;
    }

    /** The bytes that a buffer or image names; null when it stands outside the file, where nothing is ever fetched from. */
    public function resolve(?string $uri): ?Bytes
    {
        if ($uri === null) {
            return $this->binary;
        }
        if ($this->lifted->has($uri)) {
            $bytes = $this->lifted->bytes($uri);
            $this->countUnpacked($bytes->size());

            return $bytes;
        }
        if (str_starts_with($uri, 'data:')) {
            return new BytesInMemory($this->embedded($uri));
        }
        $file = $this->beside?->file($uri);
        if ($file !== null) {
            $bytes = FileBytes::open($file);
            $this->countUnpacked($bytes->size());

            return $bytes;
        }
        $path = $this->inside($uri);
        if ($path === null || $this->zip === null) {
            return null;
        }
        $entry = $this->zip->statName($path);
        $this->countUnpacked($entry['size'] ?? 0);
        $bytes = $this->zip->getFromName($path);
        if ($bytes === false) {
            throw UnreadableFile::because("\"$uri\" cannot be unpacked from the zip.");
        }

        return new BytesInMemory($bytes);
    }

    private static function openBinary(FileBytes $file, Limits $limits): self
    {
        if ($file->size() < 20) {
            throw UnreadableFile::endsEarly('the header of a .glb', 20, $file->size());
        }
        /** @var array{version: int, length: int, jsonLength: int, jsonType: int} $header */
        $header = unpack('Vversion/Vlength/VjsonLength/VjsonType', $file->read(4, 16));
        if ($header['version'] !== 2) {
            throw UnreadableFile::because('This is a .glb of version '.$header['version'].'; version 2 is supported.');
        }
        if ($header['length'] > $file->size()) {
            throw UnreadableFile::endsEarly('the .glb', $header['length'], $file->size());
        }
        if ($header['jsonType'] !== 0x4e4f534a) {
            throw UnreadableFile::because('The first chunk of the .glb is not its JSON.');
        }
        if ($header['jsonLength'] > $header['length'] - 20) {
            throw UnreadableFile::endsEarly('the JSON chunk', $header['jsonLength'], max(0, $header['length'] - 20));
        }
        $binary = null;
        $at = 20 + $header['jsonLength'];
        while ($at + 8 <= $header['length']) {
            /** @var array{length: int, type: int} $chunk */
            $chunk = unpack('Vlength/Vtype', $file->read($at, 8));
            if ($chunk['length'] > $header['length'] - $at - 8) {
                throw UnreadableFile::endsEarly('a chunk of the .glb', $chunk['length'], $header['length'] - $at - 8);
            }
            if ($chunk['type'] === 0x004e4942) {
                $binary = $file->slice($at + 8, $chunk['length']);
                break;
            }
            $at += 8 + $chunk['length'];
        }

        return self::openJson($file->slice(20, $header['jsonLength']), $limits, 'glb', $binary);
    }

    private static function openJson(Bytes $json, Limits $limits, string $format, ?Bytes $binary, ?Beside $beside = null): self
    {
        if ($json->size() > $limits->jsonBytes) {
            throw UnreadableFile::tooMuch('too much JSON (bytes)', $json->size(), $limits->jsonBytes);
        }

        return new self($format, $json, $binary, $limits, null, $beside);
    }

    private static function openZip(string $path, Limits $limits): self
    {
        $zip = new \ZipArchive;
        if ($zip->open($path, \ZipArchive::RDONLY) !== true) {
            throw UnreadableFile::because('The zip is broken and cannot be opened.');
        }
        if ($zip->numFiles > $limits->zipFiles) {
            throw UnreadableFile::tooMuch('too many files in the zip', $zip->numFiles, $limits->zipFiles);
        }
        $scenes = [];
        $names = [];
        for ($index = 0; $index < $zip->numFiles; $index++) {
            $entry = $zip->statIndex($index);
            if ($entry === false) {
                continue;
            }
            $name = $entry['name'];
            if (in_array('..', explode('/', $name), true) || str_starts_with($name, '/') || str_contains($name, '\\')) {
                throw UnreadableFile::because("The zip has a file that climbs out of its folder: \"$name\".");
            }
            if ($entry['size'] > 1_048_576 && $entry['size'] > $limits->zipRatio * max(1, $entry['comp_size'])) {
                throw UnreadableFile::tooMuch(
                    "a file in the zip, \"$name\", that unpacks to too much (times its packed size)",
                    intdiv($entry['size'], max(1, $entry['comp_size'])),
                    $limits->zipRatio,
                );
            }
            $names[strtolower($name)] = $name;
            if (str_ends_with(strtolower($name), '.gltf') && ! str_starts_with($name, '__MACOSX/')) {
                $scenes[$name] = $entry['size'];
            }
        }
        if (count($scenes) !== 1) {
            throw UnreadableFile::because(
                $scenes === [] ? 'The zip holds no .gltf file.' : 'The zip holds '.count($scenes).' .gltf files; it must hold one.',
            );
        }
        $name = (string) array_key_first($scenes);
        if ($scenes[$name] > $limits->jsonBytes) {
            throw UnreadableFile::tooMuch('too much JSON (bytes)', $scenes[$name], $limits->jsonBytes);
        }
        $json = $zip->getFromName($name);
        if ($json === false) {
            throw UnreadableFile::because("\"$name\" cannot be unpacked from the zip.");
        }
        $container = new self('gltf zip', new BytesInMemory($json), null, $limits, $zip);
        $container->zipped = $names;
        $container->folder = str_contains($name, '/') ? dirname($name).'/' : '';
        $container->countUnpacked(strlen($json));

        return $container;
    }

    /** Path in the zip of what a relative address names. */
    private function inside(string $uri): ?string
    {
        if ($this->zip === null || preg_match('~^[a-z][a-z0-9+.-]*:|^//|^[/\\\\]~i', $uri) === 1) {
            return null;
        }

        return $this->insideZip($this->folder.rawurldecode($uri));
    }

    private function insideZip(string $path): ?string
    {
        $parts = [];
        foreach (explode('/', $path) as $part) {
            if ($part === '..') {
                if (array_pop($parts) === null) {
                    return null;
                }
            } elseif ($part !== '.' && $part !== '') {
                $parts[] = $part;
            }
        }

        return $this->zipped[strtolower(implode('/', $parts))] ?? null;
    }

    private function embedded(string $uri): string
    {
        $comma = strpos($uri, ',');
        if ($comma === false) {
            throw UnreadableFile::because('An embedded buffer has no data behind its "data:".');
        }
        $data = substr($uri, $comma + 1);
        $bytes = str_contains(substr($uri, 0, $comma), ';base64') ? base64_decode($data, true) : rawurldecode($data);
        if ($bytes === false) {
            throw UnreadableFile::because('An embedded buffer is not valid base64.');
        }
        $this->countUnpacked(strlen($bytes));

        return $bytes;
    }

    private function countUnpacked(int $bytes): void
    {
        $this->unpacked += $bytes;
        if ($this->unpacked > $this->limits->bytes) {
            throw UnreadableFile::tooMuch('too many bytes when unpacked', $this->unpacked, $this->limits->bytes);
        }
    }
}
