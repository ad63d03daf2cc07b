<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Database\ReadSnapshot;
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
     * Carries the index over to the project's new revision.
     *
     * @param array<string, string> $changed packed columns that differ
     *
     * @throws UnableToKeep
     */
    public function carry(Project $project, int $from, array $changed): void
    {
        $files = new IndexFiles($project);
        $manifest = $files->manifest($files->base($from));
        if ($manifest === null) {
            return;
        }
        $files->keepManifest($files->base($project->revision), $manifest->with($files->keepColumns($changed)));
        if ($project->next_change % self::TIDIED === 0) {
            IndexTidy::of($project);
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
        $file = (new IndexFiles($project))->facts($stamp);

        // Without a base that is kept there is nothing that they could be found by.
        return [$stamp === '' ? null : $this->tryKeep($project, $file, $stamp, $columns), $columns];
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
        $file = (new IndexFiles($project))->base($project->revision);

        return [$this->tryKeep($project, $file, bin2hex(random_bytes(8)), $columns), $columns];
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
