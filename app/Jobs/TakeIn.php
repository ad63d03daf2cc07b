<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Intake\Packer;
use App\Intake\Progress;
use App\Intake\Stopped;
use App\Intake\Storing;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Project;
use App\Scenes\SceneStore;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Illuminate\Support\Facades\Storage;
use VineShelf\Formats\Gltf\GltfReader;
use VineShelf\Formats\Gltf\Pictures;
use VineShelf\Formats\Intake;
use VineShelf\Formats\UnreadableFile;
use VineShelf\Layers\FilingPlan;
use VineShelf\Layers\SortBy;

/**
 * Takes one uploaded file in. Everything up to the last step happens beside the project; the last step is one transaction, so a
 * worker that is killed leaves the project as before or as after, and the job starts over.
 */
final class TakeIn implements ShouldQueue
{
    use Queueable;

    public int $tries = 5;

    public int $timeout = 3500;

    public function __construct(public readonly int $importId) {}

    public function handle(SceneStore $scenes): void
    {
        $import = Import::query()->find($this->importId);
        // Only one worker at a time may hold an import, whatever the queue believes.
        if ($import === null || $import->isOver() || ! DB::scalar('SELECT pg_try_advisory_lock(?, ?)', [7201, $import->id])) {
            return;
        }
        try {
            $this->takeIn($import, $scenes);
        } catch (Stopped) {
            $this->end($import, ImportState::Stopped, '');
        } catch (UnreadableFile $error) {
            $this->end($import, ImportState::Failed, $error->getMessage());
        } catch (\Throwable $error) {
            Log::error('An import failed.', ['import' => $import->key, 'error' => $error]);
            $this->end($import, ImportState::Failed, 'The file could not be taken in because of a fault on our side. It is logged under '.$import->key.'.');
        } finally {
            DB::select('SELECT pg_advisory_unlock(?, ?)', [7201, $import->id]);
        }
    }

    private function takeIn(Import $import, SceneStore $scenes): void
    {
        $progress = new Progress($import);
        $import->update(['state' => ImportState::Running]);
        $progress->tell('Reading the file', 0, $import->bytes);
        $path = Storage::disk('local')->path($import->path);
        $intake = GltfReader::read($path, progress: static fn (int $nodes) => $progress->tell('Reading the file', 0, $import->bytes, $nodes));
        $plan = FilingPlan::of($intake, SortBy::from($import->sort_by), $import->property === '' ? 'layer' : $import->property);
        $project = $import->project_id === null ? null : Project::query()->findOrFail($import->project_id);
        $firstMesh = $project->next_mesh ?? 1;
        $firstMaterial = $project->next_material ?? 1;
        $numbers = [];
        foreach (array_keys($intake->meshes()) as $index => $mesh) {
            $numbers[$mesh] = $firstMesh + $index;
        }
        $materials = [];
        foreach (array_keys($intake->materials()) as $index) {
            $materials[$index] = $firstMaterial + $index;
        }
        $packer = new Packer($this->folder($import).'/packs');
        $packer->pack($intake, $this->layerOfMeshes($intake, $plan), $numbers, $materials, static fn (int $done, int $total) => $progress->tell('Packing the geometry', $done, $total));
        $textures = $this->textures($import, $intake);
        $storing = new Storing($import, $intake, $plan, $packer);
        $project = $storing->store($numbers, $textures, $progress);
        $index = $storing->index($project, $numbers);
        $index === null ? $scenes->build($project) : $scenes->keepBuilt($project, $index);
        Storage::disk('local')->delete($import->path);
        Ripen::dispatch($project->id);
    }

    /** @return array<int, int> for each mesh, the layer of the first object that draws it */
    private function layerOfMeshes(Intake $intake, FilingPlan $plan): array
    {
        $layers = [];
        foreach ($intake->objects()->meshes as $row => $mesh) {
            if ($mesh >= 0) {
                $layers[$mesh] ??= $plan->layerOf[$row];
            }
        }

        return $layers;
    }

    /** @return array<int, string|null> kept file by the source's own index */
    private function textures(Import $import, Intake $intake): array
    {
        $files = [];
        foreach (array_keys($intake->textures()) as $index) {
            $bytes = $intake->picture($index);
            $files[$index] = null;
            if ($bytes !== null) {
                $ending = ['image/png' => 'png', 'image/jpeg' => 'jpg', 'image/webp' => 'webp'][Pictures::type($bytes) ?? ''] ?? 'bin';
                $files[$index] = $this->folder($import).'/textures/'.hash('xxh128', $bytes).'.'.$ending;
                Storage::disk('local')->put($files[$index], $bytes);
            }
        }

        return $files;
    }

    private function end(Import $import, ImportState $state, string $error): void
    {
        Storage::disk('local')->deleteDirectory($this->folder($import));
        Storage::disk('local')->delete($import->path);
        Import::query()->whereKey($import->id)->update(['state' => $state->value, 'error' => $error, 'stage' => '', 'updated_at' => now()]);
    }

    private function folder(Import $import): string
    {
        return 'sources/'.$import->key;
    }
}
