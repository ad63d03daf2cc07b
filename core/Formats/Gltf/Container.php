<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Archive;
use VineShelf\Formats\Bytes;
use VineShelf\Formats\BytesInMemory;
use VineShelf\Formats\FileBytes;
use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;

/** The ways a glTF file comes: binary, plain JSON with its data embedded or, from the command line, beside it, or a zip of all that. */
final class Container
{
    private int $unpacked = 0;

    private string $folder = '';

    /** Embedded data that stays in the JSON until it is asked for. */
    public readonly Lifted $lifted;

    private function __construct(
        public readonly string $format,
        public readonly Bytes $json,
        private readonly ?Bytes $binary,
        private readonly Limits $limits,
        private readonly ?Archive $archive = null,
        private readonly ?Beside $beside = null,
    ) {
        $this->lifted = new Lifted($json);
    }

    /** @param bool $beside whether a .gltf may use files in its own folder or below it */
    public static function open(string $path, Limits $limits, bool $beside = false): self
    {
        $file = FileBytes::open($path);
        $start = $file->read(0, min(64, $file->size()));

        return match (true) {
            str_starts_with($start, 'glTF') => self::openBinary($file, $limits),
            Archive::begins($start) => self::openZip($path, $limits),
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
        if ($path === null || $this->archive === null) {
            return null;
        }
        $this->countUnpacked($this->archive->size($path));

        return new BytesInMemory($this->archive->bytes($path));
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
        $archive = Archive::open($path, $limits);
        $scenes = $archive->ending('.gltf');
        if (count($scenes) !== 1) {
            throw UnreadableFile::because(
                $scenes === [] ? 'The zip holds no .gltf file.' : 'The zip holds '.count($scenes).' .gltf files; it must hold one.',
            );
        }
        $name = $scenes[0];
        if ($archive->size($name) > $limits->jsonBytes) {
            throw UnreadableFile::tooMuch('too much JSON (bytes)', $archive->size($name), $limits->jsonBytes);
        }
        $json = $archive->bytes($name);
        $container = new self('gltf zip', new BytesInMemory($json), null, $limits, $archive);
        $container->folder = str_contains($name, '/') ? dirname($name).'/' : '';
        $container->countUnpacked(strlen($json));

        return $container;
    }

    /** Path in the zip of what a relative address names. */
    private function inside(string $uri): ?string
    {
        if ($this->archive === null || preg_match('~^[a-z][a-z0-9+.-]*:|^//|^[/\\\\]~i', $uri) === 1) {
            return null;
        }

        return $this->archive->find($this->folder.rawurldecode($uri));
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
