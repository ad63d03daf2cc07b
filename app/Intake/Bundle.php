<?php

declare(strict_types=1);

namespace App\Intake;

use App\Bench\Refused;
use VineShelf\Formats\Gltf\Beside;
use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;

/** A .gltf and the files beside it as one file, which is kept and read like any other. */
final class Bundle
{
    /**
     * @param array<string, string> $files file by its path, one of them the .gltf
     *
     * @return string a zip in the folder for temporary files
     *
     * @throws Refused
     */
    public static function of(array $files): string
    {
        $models = array_filter(array_keys($files), static fn (string $path): bool => preg_match('~\.gltf$~i', $path) === 1);
        if (count($models) !== 1) {
            throw new Refused(
                $models === []
                    ? 'Several files are taken together when one of them is a .gltf; the others are its buffers and pictures.'
                    : 'These are '.count($models).' .gltf files; take them in one after the other.',
                'file',
            );
        }
        if (count($files) > (new Limits)->zipFiles) {
            throw new Refused(
                'These are too many files at once; at most '.number_format((new Limits)->zipFiles).' are taken together.',
                'file',
            );
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'shelf');
        $zip = new \ZipArchive;
        $whole = $zip->open($path, \ZipArchive::OVERWRITE) === true;
        foreach ($files as $name => $file) {
            $whole = $whole && $zip->addFile($file, $name) && $zip->setCompressionName($name, \ZipArchive::CM_STORE);
        }
        if (! $whole || ! @$zip->close()) {
            @unlink($path);
            throw new Refused('The files could not be put together; there may be too little room on the disk.', 'file');
        }

        return $path;
    }

    /**
     * A file for taking in: the one itself, or a bundle when it is a .gltf that names files in its folder or below.
     *
     * @return string|null a zip in the folder for temporary files
     *
     * @throws Refused
     */
    public static function around(string $path): ?string
    {
        if (preg_match('~\.gltf$~i', $path) !== 1) {
            return null;
        }
        try {
            $named = Beside::named($path);
        } catch (UnreadableFile) {
            // What is wrong with it is said when it is read.
            return null;
        }

        return $named === [] ? null : self::of([basename($path) => $path] + $named);
    }
}
