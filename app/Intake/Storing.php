<?php

declare(strict_types=1);

namespace App\Intake;

use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Changes\Edits\SourceEdit;
use App\Changes\History;
use App\Changes\Hold;
use App\Models\Desk;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Incoming;
use App\Models\Project;
use App\Models\Source;
use App\Models\User;
use App\Scenes\SceneQuery;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Str;
use VineShelf\Formats\StableKeys;
use VineShelf\Formats\UnreadableFile;
use VineShelf\Geometry\Affine;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Origin;

/**
 * The second stage of taking a file in: everything that was prepared goes into the database in one transaction, as a change of the project
 * that can be taken back. The import's own row is written last, so that whoever wants to stop it need not wait for the rest.
 */
final class Storing
{
    /** @var list<int> layer number by index in the plan */
    private array $layers = [];

    /** The layer of what has none of its own. */
    private int $landing = Layer::UNSORTED;

    public function __construct(private readonly Import $import, private Prepared $prepared, private readonly Progress $progress) {}

    /**
     * @param (\Closure(Project, int): void)|null $with what is to happen together with it, given the project and the source
     *
     * @throws UnreadableFile when the project is gone or no longer the person's to change
     * @throws Stopped
     */
    public function store(?\Closure $with = null): Project
    {
        return DB::transaction(function () use ($with): Project {
            $person = User::query()->findOrFail($this->import->user_id);
            $project = $this->project($person);
            $source = $this->source($project);
            $made = $this->layers($project, $source);
            (new StoringShapes($this->prepared, $project, $source))->store();
            $first = $project->next_object;
            $this->objects($project, $source);
            $tags = Tagging::store($project, $this->prepared->tagging, $first);
            $project->origin ??= $this->origin();
            $count = $this->prepared->intake->objects()->count();
            $edits = new Edits([...$made, new SourceEdit($source->id, $count, false), ...$tags]);
            History::record($project, $person, "Take in $source->name", $edits);
            $this->finish($project, $source, $count);
            $with !== null && $with($project, $source->id);

            return $project;
        });
    }

    /**
     * The scene index of a project that this import has made, from what is in memory anyway. The last that is asked: the rest is let go of.
     *
     * @return array<string, string>|null null when the project had other sources before, or tags came with the file
     */
    public function index(Project $project): ?array
    {
        $objects = $this->prepared->intake->objects();
        if ($project->next_object !== $objects->count() + 1 || $this->prepared->tagging->names !== []) {
            return null;
        }
        $parents = $layers = $kinds = $triangles = $meshes = $placed = [];
        $placements = '';
        for ($row = 1, $count = $objects->count(); $row <= $count; $row++) {
            $parents[$row] = $objects->parents[$row];
            $layers[$row] = $this->layerOf($row);
            $kinds[$row] = $objects->kinds[$row];
            $mesh = $objects->meshes[$row];
            if ($mesh >= 0) {
                $triangles[$row] = $this->prepared->packer->meshes[$mesh]->triangles * $objects->drawn($row);
                $meshes[$row] = $this->prepared->meshes[$mesh];
                $placed[$row] = strlen($placements);
                $placements .= $objects->instances[$row] ?? substr($objects->transforms, $row * 96, 96);
            }
        }
        $taken = $this->prepared->intake->meshes();
        $names = [''];
        for ($row = 1; $row <= $objects->count(); $row++) {
            $names[] = str_replace("\0", '', $objects->called($row, $taken));
        }
        unset($this->prepared, $objects, $taken);

        return (new SceneQuery)->packed($project, $parents, $layers, $kinds, [], $triangles, $names, $meshes, $placed, $placements);
    }

    private function project(User $person): Project
    {
        if ($this->import->project_id === null) {
            $project = Project::query()
                ->create(['key' => Str::lower(Str::random(20)), 'name' => self::title($this->import->file_name)])
                ->refresh();
            $project->people()->attach($person, ['role' => 'owner']);
            $project->layers()->create(['no' => Layer::UNSORTED, 'position' => 0, 'name' => 'Unsorted', 'colour' => '#b9b3a2']);
            $project->next_mesh = 1 + count($this->prepared->meshes);
            $project->next_material = 1 + count($this->prepared->materials);

            return $project;
        }
        $project =
            Project::query()->find($this->import->project_id) ??
            throw UnreadableFile::because('The project that the file was to join has been deleted.');
        Hold::on($project);
        if (Gate::forUser($person)->denies('change', $project)) {
            throw UnreadableFile::because('You may no longer change the project that the file was to join.');
        }
        $landing = $this->import->landing > 0
            ? $this->import->landing
            : Desk::query()->where('project_id', $project->id)->where('user_id', $person->id)->value('landing_layer');
        if (is_int($landing) && $project->layers()->where('no', $landing)->exists()) {
            $this->landing = $landing;
        }

        return $project;
    }

    private static function title(string $fileName): string
    {
        $name = trim((string) preg_replace('~[_\s]+~u', ' ', (string) preg_replace('~\.(glb|gltf|zip)$~i', '', $fileName)));

        return mb_strimwidth($name === '' ? 'Untitled' : mb_strtoupper(mb_substr($name, 0, 1)).mb_substr($name, 1), 0, 120, '…');
    }

    /** @return array{float, float, float} what places are counted from, by where this file's objects are */
    private function origin(): array
    {
        $objects = $this->prepared->intake->objects();
        $middles = [];
        for ($row = 1, $step = Origin::step($objects->count()); $row <= $objects->count(); $row += $step) {
            if ($objects->meshes[$row] >= 0) {
                $middles[] = $this->prepared->packer->meshes[$objects->meshes[$row]]->box->middleOf($objects->placements($row)[0]);
            }
        }

        return Origin::of($middles);
    }

    private function source(Project $project): Source
    {
        return $project->sources()->create([
            'name' => $this->import->file_name,
            'format' => $this->prepared->intake->format(),
            'bytes' => $this->import->bytes,
            'kept' => $this->prepared->kept + $this->import->bytes,
            'original' => $this->prepared->original,
            'hulls' => $this->prepared->packer->hulls,
            'report' => Report::of(
                $this->prepared->intake,
                $this->prepared->packer->meshes,
                $this->prepared->plan,
                $this->prepared->tagging,
            ),
        ]);
    }

    /**
     * Numbers of the layers that there are, by the name in lower case that a file may say: that which they came with, also where they have
     * been renamed or moved since; then their own, those at the top first, others where only one is called so. Besides, those names by
     * which any of several may be meant.
     *
     * @return array{array<string, int>, array<string, list<int>>}
     */
    private static function known(Project $project): array
    {
        $known = $top = $nested = [];
        foreach ($project->layers()->orderBy('no')->get(['no', 'parent_no', 'name', 'came_as']) as $layer) {
            if ($layer->came_as !== '') {
                $known[mb_strtolower($layer->came_as)] ??= $layer->no;
            }
            if ($layer->parent_no === 0) {
                $top[mb_strtolower($layer->name)] ??= $layer->no;
            } else {
                $nested[mb_strtolower($layer->name)][] = $layer->no;
            }
        }
        $unique = array_filter($nested, static fn (array $numbers): bool => count($numbers) === 1);
        $known += $top + array_map(static fn (array $numbers): int => $numbers[0], $unique);

        return [$known, array_diff_key($nested, $known)];
    }

    /** @return list<RowEdit> the layers that it made; those that there are already are used again */
    private function layers(Project $project, Source $source): array
    {
        [$known, $several] = self::known($project);
        $plan = $this->prepared->plan;
        $unsure = [];
        $new = new NewLayers($project);
        foreach ($plan->names as $index => $name) {
            $key = mb_strtolower($name);
            if (isset($plan->paths[$name])) {
                $known[$key] = $new->at($plan->paths[$name], $plan->colours[$index]);
            } elseif (! isset($known[$key])) {
                $known[$key] = $new->add(0, $name, $plan->colours[$index], $name);
                if (isset($several[$key])) {
                    $unsure[] = ['layer' => $known[$key], 'among' => $several[$key]];
                }
            }
            $this->layers[] = $known[$key];
        }
        if ($unsure !== []) {
            $source->update(['report' => ['unsure' => $unsure] + $source->report]);
        }
        $rows = array_map(
            static fn (RowEdit $edit): array => ['project_id' => $project->id, 'no' => $edit->number] + ($edit->after ?? []),
            $new->made,
        );
        Incoming::insert('layers', $rows);

        return $new->made;
    }

    private function objects(Project $project, Source $source): void
    {
        $objects = $this->prepared->intake->objects();
        $count = $objects->count();
        $first = $project->next_object - 1;
        $keys = StableKeys::of($objects);
        $facts = $this->prepared->packer->meshes;
        $meshes = $this->prepared->meshes;
        $taken = $this->prepared->intake->meshes();
        // Asked once: a model looks each of its attributes up anew.
        [$projectId, $sourceId] = [$project->id, $source->id];
        $told = fn (int $in) => $this->progress->tell('Storing the objects', $in, $count, $in);
        $columns =
            'project_id, no, parent_no, position, layer_no, mesh_no, triangles, vertices, kind, source_id, name, class, source_key, '.
            'transform, instances, properties';
        $rows = new Incoming('objects', $columns, $told);
        for ($row = 1; $row <= $count; $row++) {
            $mesh = $objects->meshes[$row];
            $drawn = $objects->drawn($row);
            $properties = $objects->properties[$row] ?? null;
            $rows->add(
                $projectId.
                    "\t".
                    ($first + $row).
                    "\t".
                    ($objects->parents[$row] === 0 ? 0 : $first + $objects->parents[$row]).
                    "\t".
                    ($first + $row).
                    "\t".
                    $this->layerOf($row).
                    "\t".
                    ($mesh < 0
                        ? "0\t0\t0"
                        : $meshes[$mesh]."\t".$facts[$mesh]->triangles * $drawn."\t".$facts[$mesh]->vertices * $drawn).
                    "\t".
                    $objects->kinds[$row].
                    "\t".
                    $sourceId.
                    "\t".
                    Incoming::text($objects->called($row, $taken)).
                    "\t".
                    Incoming::text($objects->classes[$row] ?? '').
                    "\t".
                    Incoming::text($keys[$row]).
                    "\t".
                    Incoming::bytes(
                        $mesh < 0 && $objects->kinds[$row] === 0 ? '' : Affine::shortened(substr($objects->transforms, $row * 96, 96)),
                    ).
                    "\t".
                    (isset($objects->instances[$row]) ? Incoming::bytes($objects->instances[$row]) : '\\N').
                    "\t".
                    ($properties === null ? '\\N' : Incoming::text(str_replace('\\u0000', '', $properties))),
            );
        }
        $rows->finish();
        $project->next_object += $count;
    }

    /** Number of the layer that the object in a row is filed under. */
    private function layerOf(int $row): int
    {
        $index = $this->prepared->plan->layerOf[$row];

        return $index < 0 ? $this->landing : $this->layers[$index];
    }

    /** @throws Stopped when the person asked to stop before this was reached */
    private function finish(Project $project, Source $source, int $objects): void
    {
        $done = [
            'project_id' => $project->id,
            'source_id' => $source->id,
            'state' => ImportState::Done->value,
            'stage' => '',
            'objects' => $objects,
            'updated_at' => now(),
        ];
        if (Import::query()->whereKey($this->import->id)->where('stop', false)->update($done) === 0) {
            throw new Stopped;
        }
    }
}
