<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/** A zip that is looked through before anything in it is unpacked: what explodes, climbs out of its folder or is too much is refused. */
final class Archive
{
    /** @var array<string, string> path by path in lower case */
    private array $names = [];

    /** @param \ZipArchive $zip open */
    private function __construct(private readonly \ZipArchive $zip) {}

    /** @throws UnreadableFile */
    public static function open(string $path, Limits $limits): self
    {
        $zip = new \ZipArchive;
        if ($zip->open($path, \ZipArchive::RDONLY) !== true) {
            throw UnreadableFile::because('The zip is broken and cannot be opened.');
        }
        if ($zip->numFiles > $limits->zipFiles) {
            throw UnreadableFile::tooMuch('too many files in the zip', $zip->numFiles, $limits->zipFiles);
        }
        $archive = new self($zip);
        $unpacked = 0;
        for ($index = 0; $index < $zip->numFiles; $index++) {
            $entry = $zip->statIndex($index);
            if ($entry !== false) {
                self::check($entry, $limits);
                $unpacked += $entry['size'];
                $archive->names[strtolower($entry['name'])] = $entry['name'];
            }
        }

        $packed = max(1, (int) filesize($path));
        if ($unpacked > $limits->zipFree && $unpacked > $limits->zipRatioInAll * $packed) {
            throw UnreadableFile::tooMuch(
                'a zip that unpacks to too much (times its size)',
                intdiv($unpacked, $packed),
                $limits->zipRatioInAll,
            );
        }

        return $archive;
    }

    /** Whether bytes begin as a zip does. */
    public static function begins(string $start): bool
    {
        return str_starts_with($start, "PK\x03\x04") || str_starts_with($start, "PK\x05\x06");
    }

    /** @return list<string> paths that end so, in whatever case, but for what an archiver has added for itself */
    public function ending(string $ending): array
    {
        return array_values(
            array_filter(
                $this->names,
                static fn (string $name): bool => str_ends_with(strtolower($name), $ending) && ! str_starts_with($name, '__MACOSX/'),
            ),
        );
    }

    /** The path of a file that a relative address leads to; null when there is none, or it leads out of the archive. */
    public function find(string $path): ?string
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

        return $this->names[strtolower(implode('/', $parts))] ?? null;
    }

    /** Bytes of a file when it is unpacked. */
    public function size(string $path): int
    {
        return $this->zip->statName($path)['size'] ?? 0;
    }

    /** @throws UnreadableFile */
    public function bytes(string $path): string
    {
        $bytes = $this->zip->getFromName($path);

        return $bytes === false ? throw UnreadableFile::because("\"$path\" cannot be unpacked from the zip.") : $bytes;
    }

    /** @param array{name: string, size: int, comp_size: int} $entry */
    private static function check(array $entry, Limits $limits): void
    {
        ['name' => $name, 'size' => $size, 'comp_size' => $packed] = $entry;
        if (in_array('..', explode('/', $name), true) || str_starts_with($name, '/') || str_contains($name, '\\')) {
            throw UnreadableFile::because("The zip has a file that climbs out of its folder: \"$name\".");
        }
        if ($size > 1_048_576 && $size > $limits->zipRatio * max(1, $packed)) {
            throw UnreadableFile::tooMuch(
                "a file in the zip, \"$name\", that unpacks to too much (times its packed size)",
                intdiv($size, max(1, $packed)),
                $limits->zipRatio,
            );
        }
    }
}
