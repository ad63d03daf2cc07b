<?php

declare(strict_types=1);

namespace App\Intake;

use App\Files\Kept;
use App\Models\Import;
use App\Models\Source;
use VineShelf\Formats\Archive;

/** The file of a source as it came: kept once for each content, however many sources came from it, and removed when nobody wants it. */
final class Original
{
    public const FOLDER = 'originals';

    /**
     * Keeps a file that is on the disk already under its content as well.
     *
     * @param string $given where it lies on the disk for kept files
     *
     * @return string where it is kept
     *
     * @throws \App\Files\UnableToKeep
     */
    public static function keep(string $given, string $name): string
    {
        $path = Kept::disk()->path($given);
        $start = (string) file_get_contents($path, false, null, 0, 64);
        // Several files that were given together are one archive.
        $ending = Archive::begins($start) ? 'zip' : mb_strtolower(pathinfo($name, PATHINFO_EXTENSION));
        $kept = self::FOLDER.'/'.hash_file('sha256', $path).'.'.preg_replace('~[^a-z0-9]~', '', $ending);
        Kept::copy($given, $kept);

        return $kept;
    }

    /** What the file of a source is called when it is given out. */
    public static function nameOf(Source $source): string
    {
        $ending = pathinfo($source->original, PATHINFO_EXTENSION);

        return str_ends_with(mb_strtolower($source->name), ".$ending") ? $source->name : "$source->name.$ending";
    }

    /** It is no longer kept for a source; the file goes unless another source came from it too. */
    public static function remove(Source $source): void
    {
        $file = $source->original;
        if ($file === '') {
            return;
        }
        $source->update([
            'original' => '',
            'original_removed_at' => now(),
            'kept' => max(0, $source->kept - $source->bytes),
        ]);
        self::letGo($file);
    }

    /** The file goes unless a source came from it, or another import that is under way comes from the same. @param int $but an import */
    public static function letGo(string $file, int $but = 0): void
    {
        $isComing = static fn (): bool => Import::query()
            ->where('original', $file)
            ->where('id', '!=', $but)
            ->whereIn('state', ['waiting', 'running'])
            ->exists();
        if ($file !== '' && Source::query()->where('original', $file)->doesntExist() && ! $isComing()) {
            Kept::disk()->delete($file);
        }
    }
}
