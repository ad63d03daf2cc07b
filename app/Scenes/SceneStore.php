<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use VineShelf\Facts\Derived;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Scene\ColumnSource;
use VineShelf\Scene\Scene;

/**
 * Keeps the scene index of every project beside the database.
 *
 * - A manifest per revision names the files of the base columns; another one per build those of what the files say of objects. Neither
 * changes once
 *   it is written, and no column file does: they can be cached anywhere.
 * - A column that follows from others is called by what it follows from, so it needs no manifest: any process may add it, and when a base
 * column
 *   changes it is simply not found any more.
 * - Every file says how long it is, or is said to be in a manifest. What is missing or cut short is built again from the database.
 */
final class SceneStore
{
    /** Raised when a column is laid out differently: indexes of another layout are not read and built again. */
    public const LAYOUT = 8;

    private const MANIFESTS_KEPT = 4;

    /** Before a derived column: a mark and its length. */
    private const HEAD = 'VSHC';

    public function scene(Project $project): Scene
    {
        return new Scene($this->columns($project));
    }

    public function columns(Project $project): ColumnSource
    {
        $stored = new StoredColumns($this, $project);

        return new DerivedColumns($stored, $stored->keep(...));
    }

    /** Works out what rules and sorting are known to need, so that nobody has to wait for it. */
    public function ripen(Project $project): void
    {
        $columns = $this->columns($project);
        foreach (Derived::usual() as $name) {
            $columns->column($name);
        }
    }

    /**
     * Carries the index over to the project's new revision.
     *
     * @param array<string, string> $changed packed columns that differ
     *
     * @throws UnableToKeep
     */
    public function carry(Project $project, int $from, array $changed): void
    {
        $manifest = $this->manifest($project, $from);
        if ($manifest === null) {
            return;
        }
        $this->keep($this->base($project, $project->revision), $manifest->with($this->write($project, $changed)));
        if ($project->revision % 8 === 0) {
            $this->tidy($project);
        }
    }

    /**
     * Builds the base columns from the database, as it stands at one moment.
     *
     * @return array{Manifest|null, array<string, string>} null when the columns could not be kept
     */
    public function build(Project $project): array
    {
        return $this->atOneMoment($project, fn (Project $then): array => $this->keepBuilt($then, (new SceneQuery)->columns($then)));
    }

    /**
     * Reads from the database what the files say of objects.
     *
     * @return array{Manifest|null, array<string, string>}
     */
    public function buildFacts(Project $project, string $stamp, Scene $scene): array
    {
        $columns = (new SceneQuery)->facts($project, $scene);

        // Without a base that is kept there is nothing that they could be found by.
        return [$stamp === '' ? null : $this->tryKeep($project, $this->factsFile($project, $stamp), $stamp, $columns), $columns];
    }

    /**
     * Keeps an index that was built elsewhere.
     *
     * @param array<string, string> $columns packed column by name
     *
     * @return array{Manifest|null, array<string, string>}
     */
    public function keepBuilt(Project $project, array $columns): array
    {
        return [$this->tryKeep($project, $this->base($project, $project->revision), bin2hex(random_bytes(8)), $columns), $columns];
    }

    /** Forgets the index, so that it is built from the database when it is next needed. */
    public function forget(Project $project): void
    {
        Kept::disk()->deleteDirectory($this->folder($project));
        apcu_enabled() && apcu_delete($this->base($project, $project->revision));
    }

    public function manifest(Project $project, int $revision): ?Manifest
    {
        return $this->readManifest($this->base($project, $revision));
    }

    public function facts(Project $project, string $stamp): ?Manifest
    {
        return $this->readManifest($this->factsFile($project, $stamp));
    }

    /** The bytes of a column's file; null when it is not there as long as it should be. */
    public function read(string $file, int $length): ?string
    {
        return self::cached($file, static fn (): ?string => Kept::get($file, $length));
    }

    /**
     * A derived column; null when it has to be made.
     *
     * @param list<string> $from what it follows from, see {@see derivedFile()}
     */
    public function derived(Project $project, string $name, array $from): ?string
    {
        $file = $this->derivedFile($project, $name, $from);

        return self::cached($file, static function () use ($file): ?string {
            $bytes = Kept::get($file);
            $head = strlen(self::HEAD) + 8;
            if ($bytes === null || strlen($bytes) < $head || ! str_starts_with($bytes, self::HEAD.pack('P', strlen($bytes) - $head))) {
                return null;
            }

            return substr($bytes, $head);
        });
    }

    /**
     * Keeps a derived column; without room for it, it is made again next time.
     *
     * @param list<string> $from
     */
    public function keepDerived(Project $project, string $name, array $from, string $bytes): void
    {
        $file = $this->derivedFile($project, $name, $from);
        try {
            Kept::put($file, self::HEAD.pack('P', strlen($bytes)).$bytes);
        } catch (UnableToKeep $full) {
            Log::warning($full->getMessage(), ['project' => $project->key, 'column' => $name]);

            return;
        }
        apcu_enabled() && apcu_store($file, $bytes, 3600);
    }

    /**
     * What a derived column is called: by its name and what it follows from.
     *
     * @param list<string> $from files or names of the columns that it needs
     */
    public function derivedFile(Project $project, string $name, array $from): string
    {
        return $this->folder($project)."/~$name.".hash('xxh128', $name."\0".implode("\0", $from));
    }

    /** @param array<string, string> $columns */
    private function tryKeep(Project $project, string $file, string $stamp, array $columns): ?Manifest
    {
        try {
            return $this->keep($file, new Manifest($stamp, $this->write($project, $columns)));
        } catch (UnableToKeep $full) {
            Log::warning($full->getMessage(), ['project' => $project->key, 'index' => basename($file)]);

            return null;
        }
    }

    /** @throws UnableToKeep */
    private function keep(string $file, Manifest $manifest): Manifest
    {
        Kept::put($file, $manifest->pack());
        apcu_enabled() && apcu_store($file, $manifest->pack(), 3600);

        return $manifest;
    }

    private function readManifest(string $file): ?Manifest
    {
        $packed = self::cached($file, static fn (): ?string => Kept::get($file));

        return $packed === null ? null : Manifest::unpack($packed);
    }

    /**
     * @param array<string, string> $columns
     *
     * @return array<string, array{string, int}>
     *
     * @throws UnableToKeep
     */
    private function write(Project $project, array $columns): array
    {
        $files = [];
        foreach ($columns as $name => $bytes) {
            $files[$name] = [$this->folder($project)."/$name.".bin2hex(random_bytes(8)), strlen($bytes)];
            Kept::put($files[$name][0], $bytes);
        }

        return $files;
    }

    /** @param \Closure(): (string|null) $read */
    private static function cached(string $file, \Closure $read): ?string
    {
        $cached = apcu_enabled() ? apcu_fetch($file) : false;
        if (is_string($cached)) {
            return $cached;
        }
        $bytes = $read();
        if ($bytes !== null && apcu_enabled()) {
            apcu_store($file, $bytes, 3600);
        }

        return $bytes;
    }

    /**
     * Runs with a view of the database that others' changes do not reach, and with the project as it is in it.
     *
     * @template T
     *
     * @param \Closure(Project): T $run
     *
     * @return T
     */
    private function atOneMoment(Project $project, \Closure $run): mixed
    {
        if (DB::transactionLevel() > 0) {
            return $run($project);
        }

        return DB::transaction(static function () use ($project, $run): mixed {
            DB::statement('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY');

            return $run(Project::query()->findOrFail($project->id));
        });
    }

    /** Lets go of manifests that nobody can still be reading, and of the columns that only they named. */
    private function tidy(Project $project): void
    {
        $live = [];
        $sources = [];
        for ($revision = $project->revision - self::MANIFESTS_KEPT; $revision <= $project->revision; $revision++) {
            $manifest = $this->manifest($project, $revision);
            if ($manifest !== null) {
                $facts = $this->facts($project, $manifest->stamp);
                $live[$this->base($project, $revision)] = $live[$this->factsFile($project, $manifest->stamp)] = true;
                $live += array_fill_keys(array_column([...$manifest->columns, ...$facts->columns ?? []], 0), true);
                $sources[] = new DerivedNames($manifest, $facts);
            }
        }
        $disk = Kept::disk();
        foreach ($disk->files($this->folder($project)) as $file) {
            $name = preg_match('~/\~(.+)\.[0-9a-f]{32}$~D', "/$file", $found) === 1 ? $found[1] : null;
            $isDerived =
                $name !== null &&
                array_filter(
                    $sources,
                    fn (DerivedNames $names): bool => $this->derivedFile($project, $name, $names->from($name) ?? []) === $file,
                ) !== [];
            // What was written a moment ago may belong to a manifest that is yet to come.
            if (! isset($live[$file]) && ! $isDerived && $disk->exists($file) && $disk->lastModified($file) < time() - 60) {
                $disk->delete($file);
            }
        }
    }

    private function base(Project $project, int $revision): string
    {
        return $this->folder($project)."/$revision.json";
    }

    private function factsFile(Project $project, string $stamp): string
    {
        return $this->folder($project)."/facts-$stamp.json";
    }

    private function folder(Project $project): string
    {
        return $project->folder().'/index-'.self::LAYOUT;
    }
}
