<?php

declare(strict_types=1);

namespace App\Intake;

use App\Changes\Hold;
use App\Files\Kept;
use App\Models\Import;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Formats\Files;
use VineShelf\Formats\Gltf\Pictures;
use VineShelf\Formats\Intake;
use VineShelf\Formats\UnreadableFile;
use VineShelf\Layers\FilingPlan;
use VineShelf\Layers\SortBy;
use VineShelf\Tags\TaggingPlan;

/**
 * The first stage of taking a file in: reads it and writes packs and pictures beside everything. Whatever happens here, the project is as
 * before.
 */
final readonly class Preparing
{
    public function __construct(private Import $import, private Staging $staging, private Progress $progress) {}

    /**
     * @throws UnreadableFile
     * @throws Stopped
     * @throws \App\Files\UnableToKeep
     */
    public function prepare(): Prepared
    {
        $this->staging->clear();
        $import = $this->import;
        $this->progress->tell('Reading the file', 0, $import->bytes);
        $read = fn (int $nodes, float $share) => $this->progress->tell(
            'Reading the file',
            (int) ($share * $import->bytes),
            $import->bytes,
            $nodes,
        );
        $intake = Files::open(Kept::disk()->path($import->path), progress: $read);
        $plan = FilingPlan::of($intake, SortBy::from($import->sort_by), $import->property === '' ? 'layer' : $import->property);
        $tagging = TaggingPlan::of($intake->objects(), $import->tags_from, $import->separator);
        [$meshes, $materials] = $this->numbers($intake);
        $packer = new Packer($this->staging->folder().'/packs', $this->staging->final().'/packs');
        $pack = fn (int $done, int $total) => $this->progress->tell('Packing the geometry', $done, $total);
        $packer->pack($intake, self::layerOfMeshes($intake, $plan), $meshes, $materials, $pack);
        [$textures, $bytes] = $this->textures($intake);

        $original = Original::keep($import->path, $import->file_name);
        $import->update(['original' => $original]);

        return new Prepared($intake, $plan, $packer, $meshes, $materials, $textures, $packer->kept + $bytes, $tagging, $original);
    }

    /**
     * Numbers for meshes and materials, which packs name: taken from the project at once, so that two files on their way into one project
     * never get the same. Should this one not get in, they are not used again.
     *
     * @return array{array<int, int>, array<int, int>} by the source's own index
     *
     * @throws UnreadableFile
     */
    private function numbers(Intake $intake): array
    {
        $meshes = array_keys($intake->meshes());
        $materials = array_keys($intake->materials());
        [$mesh, $material] =
            $this->import->project_id === null
                ? [1, 1]
                : DB::transaction(function () use ($meshes, $materials): array {
                    $project =
                        Project::query()->find($this->import->project_id) ??
                        throw UnreadableFile::because('The project that the file was to join has been deleted.');
                    Hold::on($project);
                    $first = [$project->next_mesh, $project->next_material];
                    $project->next_mesh += count($meshes);
                    $project->next_material += count($materials);
                    $project->save();

                    return $first;
                });
        $from = static fn (array $indices, int $first): array => $indices === []
            ? []
            : array_combine($indices, range($first, $first + count($indices) - 1));

        return [$from($meshes, $mesh), $from($materials, $material)];
    }

    /** @return array<int, int> for each mesh, the layer of the first object that draws it */
    private static function layerOfMeshes(Intake $intake, FilingPlan $plan): array
    {
        $layers = [];
        foreach ($intake->objects()->meshes as $row => $mesh) {
            if ($mesh >= 0) {
                $layers[$mesh] ??= $plan->layerOf[$row];
            }
        }

        return $layers;
    }

    /**
     * @return array{array<int, string|null>, int} file by the source's own index, null for a picture that is not in the file; and their
     * bytes in all
     */
    private function textures(Intake $intake): array
    {
        $files = [];
        $kept = 0;
        foreach (array_keys($intake->textures()) as $index) {
            $bytes = $intake->picture($index);
            $files[$index] = null;
            if ($bytes !== null) {
                $ending = ['image/png' => 'png', 'image/jpeg' => 'jpg', 'image/webp' => 'webp'][Pictures::type($bytes) ?? ''] ?? 'bin';
                $name = '/textures/'.hash('xxh128', $bytes).'.'.$ending;
                Kept::put($this->staging->folder().$name, $bytes);
                $files[$index] = $this->staging->final().$name;
                $kept += strlen($bytes);
            }
        }

        return [$files, $kept];
    }
}
