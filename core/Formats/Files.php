<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/** Opens a file by whichever reader knows it. */
final class Files
{
    /** @var list<class-string<Reader>> */
    private const READERS = [Gltf\GltfReader::class];

    /**
     * @param (callable(int, float): void)|null $progress called now and then with the number of objects read so far, and how much of the
     *     whole that is, up to 1; may throw to stop
     * @param bool                       $beside   whether the file may use others in its own folder or below it
     *
     * @throws UnreadableFile
     */
    public static function open(string $path, Limits $limits = new Limits, ?callable $progress = null, bool $beside = false): Intake
    {
        $file = FileBytes::open($path);
        if ($file->size() > $limits->bytes) {
            throw UnreadableFile::tooMuch('too many bytes', $file->size(), $limits->bytes);
        }
        if ($file->size() === 0) {
            throw UnreadableFile::because('The file is empty.');
        }
        $start = $file->read(0, min(64, $file->size()));
        foreach (self::READERS as $reader) {
            if ($reader::knows($start)) {
                return $reader::read($path, $limits, $progress, $beside);
            }
        }
        throw UnreadableFile::unknownFormat();
    }
}
