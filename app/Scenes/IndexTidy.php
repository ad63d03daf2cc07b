<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Files\Kept;
use App\Models\Project;

/** Lets go of manifests that nobody can still be reading, and of the columns that only they named. */
final readonly class IndexTidy
{
    private const MANIFESTS_KEPT = 4;

    /** Seconds for which something may read a revision after it is no longer the last: exports take so long at most. */
    private const READ_FOR = 1900;

    /** Seconds: what was written a moment ago may belong to a manifest that is yet to come. */
    private const FRESH = 60;

    public static function of(Project $project): void
    {
        $files = new IndexFiles($project);
        $live = [];
        $sources = [];
        $disk = Kept::disk();
        $all = $disk->files($files->folder);
        foreach (self::read($files, $all, $project->revision) as $revision) {
            $manifest = $files->manifest($files->base($revision));
            if ($manifest !== null) {
                $facts = $files->manifest($files->facts($manifest->stamp));
                $live[$files->base($revision)] = $live[$files->facts($manifest->stamp)] = true;
                $live += array_fill_keys(array_column([...$manifest->columns, ...$facts->columns ?? []], 0), true);
                $sources[] = new DerivedNames($manifest, $facts);
            }
        }
        $live += self::derived($files, $all, $sources);
        foreach ($all as $file) {
            if (! isset($live[$file]) && $disk->exists($file) && $disk->lastModified($file) < time() - self::FRESH) {
                $disk->delete($file);
            }
        }
    }

    /**
     * @param array<string> $all files
     *
     * @return list<int> revisions up to one that have manifests and may still be read
     */
    private static function read(IndexFiles $files, array $all, int $revision): array
    {
        $revisions = [$revision];
        foreach ($all as $file) {
            $name = basename($file, '.json');
            if (ctype_digit($name) && (int) $name < $revision) {
                $revisions[] = (int) $name;
            }
        }
        sort($revisions);

        $since = time() - self::READ_FOR;
        $disk = Kept::disk();
        for ($first = max(0, count($revisions) - self::MANIFESTS_KEPT - 1); $first > 0; $first--) {
            // A revision is read anew until the next one is there.
            $next = $files->base($revisions[$first]);
            if (! $disk->exists($next) || $disk->lastModified($next) < $since) {
                break;
            }
        }

        return array_slice($revisions, $first);
    }

    /**
     * @param array<string>      $all     files
     * @param list<DerivedNames> $sources
     *
     * @return array<string, true> files of columns that follow from those of some manifest
     */
    private static function derived(IndexFiles $files, array $all, array $sources): array
    {
        $columns = [];
        foreach ($all as $file) {
            if (preg_match('~/\~(.+)\.[0-9a-f]{32}$~D', "/$file", $found) === 1) {
                $columns[$found[1]] = true;
            }
        }
        $live = [];
        foreach ($sources as $names) {
            foreach (array_keys($columns) as $column) {
                $live[$files->derived((string) $column, $names->from((string) $column) ?? [])] = true;
            }
        }

        return $live;
    }
}
