<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Database\ReadSnapshot;
use App\Files\UnableToKeep;
use App\Models\Project;
use Illuminate\Database\QueryException;
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
    /** How often, in changes, what nobody reads any more is let go. */
    private const TIDIED = 16;

    public function scene(Project $project): Scene
    {
        return new Scene($this->columns($project));
    }

    public function columns(Project $project): ColumnSource
    {
        $unfinished = Unfinished::of($project);
        if ($unfinished !== null) {
            return $unfinished;
        }
        $stored = new StoredColumns($this, $project);

        return new DerivedColumns($stored, $stored->keep(...));
    }

    /** Which files hold the base columns of the project as it stands; null when they could not be kept. */
    public function manifest(Project $project): ?Manifest
    {
        $files = new IndexFiles($project);

        return $files->manifest($files->base($project->revision)) ?? $this->build($project)[0];
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
     * Carries the index over to the revision that a change has just begun, in the change's own transaction: whoever is the first to see
     * that revision need not build it. Where it cannot be kept, it is built from the database when it is next needed; where the change is
     * given up, nobody ever asks for it.
     *
     * @param \Closure(): (array<string, string>|null) $changed packed columns that differ; null where the index is to be built anew
     */
    public function carry(Project $project, \Closure $changed): void
    {
        $this->underNewRevision($project, function (IndexFiles $files) use ($project, $changed): void {
            $columns = $changed();
            $before = $files->manifest($files->base($project->revisionBefore));
            if ($columns === null) {
                self::keepWhole($files, $project->revision, (new SceneQuery)->columns($project));
            } elseif ($before !== null) {
                $files->keepManifest($files->base($project->revision), $before->with($files->keepColumns($columns)));
            }
            if ($project->next_change % self::TIDIED === 0) {
                IndexTidy::of($project);
            }
        });
    }

    /**
     * The same for a change after which all is another way.
     *
     * @param \Closure(): (array<string, string>|null) $columns all base columns; null where they are to be read from the database
     */
    public function replace(Project $project, \Closure $columns): void
    {
        $this->underNewRevision($project, static function (IndexFiles $files) use ($project, $columns): void {
            self::keepWhole($files, $project->revision, $columns() ?? (new SceneQuery)->columns($project));
        });
    }

    /** @param array<string, string> $columns all base columns */
    private static function keepWhole(IndexFiles $files, int $revision, array $columns): Manifest
    {
        return $files->keepManifest($files->base($revision), new Manifest(bin2hex(random_bytes(8)), $files->keepColumns($columns)));
    }

    /** @param \Closure(IndexFiles): void $keep */
    private function underNewRevision(Project $project, \Closure $keep): void
    {
        $files = new IndexFiles($project);
        try {
            // One that was given up may have left something.
            $files->forgetManifest($project->revision);
            $keep($files);
        } catch (QueryException $failed) {
            throw $failed;
        } catch (\Throwable $fault) {
            Log::warning('The index did not follow a change.', [
                'project' => $project->key,
                'revision' => $project->revision,
                'error' => $fault->getMessage(),
            ]);
        }
    }

    /**
     * Builds the base columns from the database, as it stands at one moment.
     *
     * @return array{Manifest|null, array<string, string>} null when the columns could not be kept
     */
    public function build(Project $project): array
    {
        return $this->atOneMoment($project, function (Project $then): array {
            $columns = (new SceneQuery)->columns($then);
            $file = (new IndexFiles($then))->base($then->revision);

            return [$this->tryKeep($then, $file, bin2hex(random_bytes(8)), $columns), $columns];
        });
    }

    /**
     * Reads from the database what the files say of objects.
     *
     * @return array{Manifest|null, array<string, string>}
     */
    public function buildFacts(Project $project, string $stamp, Scene $scene): array
    {
        $columns = (new SceneQuery)->facts($project, $scene);
        $file = (new IndexFiles($project))->facts($stamp);

        // Without a base that is kept there is nothing that they could be found by.
        return [$stamp === '' ? null : $this->tryKeep($project, $file, $stamp, $columns), $columns];
    }

    /** Forgets the index, so that it is built from the database when it is next needed. */
    public function forget(Project $project): void
    {
        (new IndexFiles($project))->forget();
    }

    /** @param array<string, string> $columns */
    private function tryKeep(Project $project, string $file, string $stamp, array $columns): ?Manifest
    {
        if (Unfinished::isOn()) {
            return null;
        }
        $files = new IndexFiles($project);
        try {
            return $files->keepManifest($file, new Manifest($stamp, $files->keepColumns($columns)));
        } catch (UnableToKeep $full) {
            Log::warning($full->getMessage(), ['project' => $project->key, 'index' => basename($file)]);

            return null;
        }
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
        if (ReadSnapshot::isOn()) {
            return $run(Project::query()->findOrFail($project->id));
        }

        return DB::transaction(static function () use ($project, $run): mixed {
            DB::statement('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY');

            return $run(Project::query()->findOrFail($project->id));
        });
    }
}
