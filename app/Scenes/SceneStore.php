<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Project;
use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Measure;
use VineShelf\Scene\ColumnSource;
use VineShelf\Scene\Scene;

/**
 * Keeps the scene index of every project beside the database: a small manifest per revision that says which file holds which
 * column. Column files never change, so they can be cached anywhere; a missing manifest or file only means building it again.
 */
final class SceneStore
{
    private const MANIFESTS_KEPT = 4;

    /** What follows from columns that can change. */
    private const FOLLOW = ['names' => ['order.name.up', 'order.name.down', 'bits.unnamed'], 'layer' => ['tally.layer']];

    /** Raised when a column is laid out differently: indexes of another layout are not read and built again. */
    public const LAYOUT = 4;

    public function scene(Project $project): Scene
    {
        return new Scene($this->columns($project));
    }

    public function columns(Project $project): ColumnSource
    {
        $stored = new StoredColumns($this, $project, $this->manifest($project, $project->revision) ?? $this->build($project));

        return new DerivedColumns($stored, function (string $name, string $bytes) use ($project): void {
            $this->add($project, [$name => $bytes]);
        });
    }

    /**
     * Puts columns beside those that the index already has.
     *
     * @param array<string, string> $columns packed column by name
     *
     * @return array<string, string> file by column
     */
    public function add(Project $project, array $columns): array
    {
        return $this->keep($project, $this->write($project, $columns) + ($this->manifest($project, $project->revision) ?? []));
    }

    /** Works out what rules and sorting are known to need, so that nobody has to wait for it. */
    public function ripen(Project $project): void
    {
        $columns = $this->columns($project);
        foreach (['box', 'blocks', 'instances', 'depths', 'ranked.kind', 'ranked.class', 'ranked.surfaces', 'ranked.mesh', 'bits.groups', 'bits.unnamed', 'bits.material', 'bits.textures', 'tally.layer', 'tally.kind', 'tally.kindclass', 'tally.surfaces', 'tally.source', 'order.name.up'] as $name) {
            $columns->column($name);
        }
        foreach (Measure::cases() as $measure) {
            $columns->column("ranked.$measure->value");
            $columns->column("order.$measure->value.down");
        }
    }

    /**
     * Carries the index over to the project's new revision.
     *
     * @param array<string, string> $changed packed columns that differ
     */
    public function carry(Project $project, int $from, array $changed): void
    {
        $files = $this->manifest($project, $from);
        if ($files === null) {
            return;
        }
        // What was worked out from a column that has changed is worked out again when it is needed.
        foreach (array_intersect_key(self::FOLLOW, $changed) as $stale) {
            $files = array_diff_key($files, array_flip($stale));
        }
        $this->keep($project, $this->write($project, $changed) + $files);
        if ($project->revision % 8 === 0) {
            $this->tidy($project);
        }
    }

    /** @return array<string, string> file by column */
    public function build(Project $project): array
    {
        return $this->keep($project, $this->write($project, (new SceneQuery)->columns($project)));
    }

    /**
     * Keeps an index that was built elsewhere.
     *
     * @param array<string, string> $columns packed column by name
     */
    public function keepBuilt(Project $project, array $columns): void
    {
        $this->keep($project, $this->write($project, $columns));
    }

    /** Forgets the index of a revision, so that it is built from the database when it is next needed. */
    public function forget(Project $project): void
    {
        $this->disk()->deleteDirectory($this->folder($project));
        apcu_delete($this->folder($project)."/$project->revision.json");
    }

    public function read(string $file): ?string
    {
        if ($file === '') {
            return null;
        }
        $cached = apcu_enabled() ? apcu_fetch($file) : false;
        if (is_string($cached)) {
            return $cached;
        }
        $bytes = $this->disk()->get($file);
        if ($bytes !== null && apcu_enabled()) {
            apcu_store($file, $bytes, 3600);
        }

        return $bytes;
    }

    /** @return array<string, string>|null */
    private function manifest(Project $project, int $revision): ?array
    {
        $found = $this->read($this->folder($project)."/$revision.json");
        $files = $found === null ? null : json_decode($found, true);
        if (! is_array($files)) {
            return null;
        }

        return array_map(static fn (mixed $file): string => is_string($file) ? $file : '', array_combine(array_map(strval(...), array_keys($files)), array_values($files)));
    }

    /**
     * @param array<string, string> $columns
     *
     * @return array<string, string>
     */
    private function write(Project $project, array $columns): array
    {
        $files = [];
        foreach ($columns as $name => $bytes) {
            $files[$name] = $this->folder($project)."/$name.".Str::lower(Str::random(12));
            $this->disk()->put($files[$name], $bytes);
        }

        return $files;
    }

    /**
     * @param array<string, string> $files
     *
     * @return array<string, string>
     */
    private function keep(Project $project, array $files): array
    {
        $manifest = $this->folder($project)."/$project->revision.json";
        $this->disk()->put($manifest, (string) json_encode($files));
        if (apcu_enabled()) {
            apcu_store($manifest, (string) json_encode($files), 3600);
        }

        return $files;
    }

    /** Lets go of manifests that nobody can still be reading, and of the columns that only they named. */
    private function tidy(Project $project): void
    {
        $live = [];
        for ($revision = $project->revision - self::MANIFESTS_KEPT; $revision <= $project->revision; $revision++) {
            $live[$this->folder($project)."/$revision.json"] = true;
            foreach ($this->manifest($project, $revision) ?? [] as $file) {
                $live[$file] = true;
            }
        }
        foreach ($this->disk()->files($this->folder($project)) as $file) {
            if (! isset($live[$file])) {
                $this->disk()->delete($file);
            }
        }
    }

    private function folder(Project $project): string
    {
        return $project->folder().'/index-'.self::LAYOUT;
    }

    private function disk(): Filesystem
    {
        return Storage::disk('local');
    }
}
