<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Changes\Log;
use App\Files\Kept;
use App\Intake\Original;
use App\Lighten\Coarsening;
use App\Models\Change;
use App\Models\Export;
use App\Models\Import;
use App\Models\Lightening;
use App\Models\Project;
use App\Scenes\IndexFiles;
use Illuminate\Filesystem\FilesystemAdapter;
use Illuminate\Support\Facades\DB;

/**
 * Removes files that nothing names, and gives imports that nobody works on back to the queue. What is younger than an hour may be on its
 * way and stays.
 */
final class Sweep
{
    private const YOUNG = 3600;

    /** Seconds for which an export can be fetched, and a proposal that nobody applied. */
    private const EXPORTS = 86_400;

    private readonly FilesystemAdapter $disk;

    private int $removed = 0;

    public function __construct()
    {
        $this->disk = Kept::disk();
    }

    /** @return array{removed: int, resumed: int} files that went, imports that the queue has again */
    public function run(): array
    {
        $open = Import::query()
            ->whereIn('state', ['waiting', 'running'])
            ->pluck('key')
            ->all();
        $named = DB::table('packs')
            ->select('file')
            ->union(DB::table('textures')->select('file'))
            ->pluck('file')
            ->map(static fn (mixed $file): string => explode('/', (string) $file)[1] ?? '')
            ->unique()
            ->all();
        $this->clear('uploads', array_fill_keys($open, true));
        $this->clear('staging', array_fill_keys($open, true));
        $this->clear(Original::FOLDER, array_fill_keys(DB::table('sources')->where('original', '!=', '')->pluck('original')->all(), true));
        $this->clear('sources', array_fill_keys([...$open, ...$named], true));
        Export::query()->where('created_at', '<', now()->subSeconds(self::EXPORTS))->delete();
        $kept = Export::query()->pluck('key')->map(static fn (mixed $key): string => "exports/$key.glb");
        $this->clear('exports', array_fill_keys($kept->all(), true));
        Lightening::query()
            ->where('created_at', '<', now()->subSeconds(self::EXPORTS))
            ->where(static fn ($query) => $query->whereNull('applied_at')->orWhereNotNull('given_back_at'))
            ->delete();
        $shown = Lightening::query()
            ->get(['id', 'key'])
            ->flatMap(static fn (Lightening $one): array => array_map($one->file(...), Lightening::PICTURES));
        $this->clear('lightenings', array_fill_keys($shown->all(), true));
        $this->clear('projects', array_fill_keys(Project::query()->pluck('key')->all(), true));
        foreach (Project::query()->cursor() as $project) {
            $this->clearProject($project);
            (new Log($project))->thin();
            // What was lost on its way, and projects from before there were coarser versions.
            if (Coarsening::left($project) > 0 && ! self::isQueued('projectId', $project->id, Coarsen::QUEUE)) {
                Coarsen::dispatch($project->id);
            }
        }

        return ['removed' => $this->removed, 'resumed' => $this->resume()];
    }

    /** @param array<string, true> $named what stays: files and folders directly in the folder */
    private function clear(string $folder, array $named): void
    {
        foreach ($this->disk->directories($folder) as $inner) {
            if (! isset($named[basename($inner)])) {
                $this->remove($this->disk->allFiles($inner), $inner);
            }
        }
        $this->remove(
            array_filter(
                $this->disk->files($folder),
                static fn (string $file): bool => ! isset($named[basename($file)]) && ! isset($named[$file]),
            ),
        );
    }

    private function clearProject(Project $project): void
    {
        foreach ($this->disk->directories($project->folder()) as $inner) {
            if (preg_match('~^index-(\d+)$~D', basename($inner), $found) === 1 && (int) $found[1] !== IndexFiles::LAYOUT) {
                $this->remove($this->disk->allFiles($inner), $inner);
            }
        }
        $pictures = $this->disk->files($project->folder().'/pictures');
        if ($pictures !== []) {
            $named = array_fill_keys($this->pictures($project), true);
            $this->remove(array_filter($pictures, static fn (string $file): bool => ! isset($named[$file])));
        }
        $this->remove(
            array_filter($this->disk->allFiles($project->folder()), static fn (string $file): bool => str_contains($file, '.part-')),
        );
    }

    /** @return list<string> files of pictures that the project, its views, or a change that can be taken back or done again names */
    private function pictures(Project $project): array
    {
        $files = [$project->picture, ...$project->views()->pluck('picture')->all()];
        foreach (Change::query()->where('project_id', $project->id)->where('name', 'like', '%view%')->cursor() as $change) {
            try {
                $steps = Edits::unpack($change->edits)->steps;
            } catch (\JsonException) {
                continue;
            }
            foreach ($steps as $step) {
                if ($step instanceof RowEdit && $step->table === 'views') {
                    array_push($files, $step->before['picture'] ?? '', $step->after['picture'] ?? '');
                }
            }
        }

        return array_values(array_filter($files, is_string(...)));
    }

    /**
     * @param array<array-key, string> $files
     * @param string|null              $folder goes with them when all are old
     */
    private function remove(array $files, ?string $folder = null): void
    {
        $old = array_filter(
            $files,
            fn (string $file): bool => $this->disk->exists($file) && $this->disk->lastModified($file) < time() - self::YOUNG,
        );
        if ($folder !== null && count($old) === count($files)) {
            $this->disk->deleteDirectory($folder);
        } else {
            array_map($this->disk->delete(...), $old);
        }
        $this->removed += count($old);
    }

    /** Imports whose job is lost start again; those whose file is lost are over. */
    private function resume(): int
    {
        $resumed = 0;
        foreach (
            Import::query()
                ->whereIn('state', ['waiting', 'running'])
                ->where('updated_at', '<', now()->subSeconds(self::YOUNG))
                ->get() as $import
        ) {
            if (! $this->disk->exists($import->path)) {
                $import->update(['state' => 'failed', 'error' => 'The file was lost on its way; give it again.', 'stage' => '']);
            } elseif (! self::isQueued('importId', $import->id, 'default')) {
                TakeIn::dispatch($import->id);
                $resumed++;
            }
        }

        return $resumed;
    }

    private static function isQueued(string $what, int $id, string $queue): bool
    {
        return DB::table('jobs')
            ->where('queue', $queue)
            ->where('payload', 'like', "%$what%;i:$id;%")
            ->exists();
    }
}
