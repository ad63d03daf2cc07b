<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Files\Kept;
use App\Models\Project;

/** Lets go of manifests that nobody can still be reading, and of the columns that only they named. */
final readonly class IndexTidy
{
    private const MANIFESTS_KEPT = 4;

    /** Seconds: what was written a moment ago may belong to a manifest that is yet to come. */
    private const FRESH = 60;

    public static function of(Project $project): void
    {
        $files = new IndexFiles($project);
        $live = [];
        $sources = [];
        $disk = Kept::disk();
        $all = $disk->files($files->folder);
        foreach (self::latest($all, $project->revision) as $revision) {
            $manifest = $files->manifest($files->base($revision));
            if ($manifest !== null) {
                $facts = $files->manifest($files->facts($manifest->stamp));
                $live[$files->base($revision)] = $live[$files->facts($manifest->stamp)] = true;
                $live += array_fill_keys(array_column([...$manifest->columns, ...$facts->columns ?? []], 0), true);
                $sources[] = new DerivedNames($manifest, $facts);
            }
        }
        foreach ($all as $file) {
            $isLive = isset($live[$file]) || self::isDerived($files, $file, $sources);
            if (! $isLive && $disk->exists($file) && $disk->lastModified($file) < time() - self::FRESH) {
                $disk->delete($file);
            }
        }
    }

    /**
     * @param array<string> $files
     *
     * @return list<int> revisions that have manifests, the last ones up to one
     */
    private static function latest(array $files, int $revision): array
    {
        $revisions = [$revision];
        foreach ($files as $file) {
            $name = basename($file, '.json');
            if (ctype_digit($name) && (int) $name < $revision) {
                $revisions[] = (int) $name;
            }
        }
        sort($revisions);

        return array_slice($revisions, -self::MANIFESTS_KEPT - 1);
    }

    /** @param list<DerivedNames> $sources */
    private static function isDerived(IndexFiles $files, string $file, array $sources): bool
    {
        if (preg_match('~/\~(.+)\.[0-9a-f]{32}$~D', "/$file", $found) !== 1) {
            return false;
        }
        foreach ($sources as $names) {
            if ($files->derived($found[1], $names->from($found[1]) ?? []) === $file) {
                return true;
            }
        }

        return false;
    }
}
