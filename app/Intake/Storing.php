<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Import;
use App\Models\ImportState;
use App\Models\Project;
use App\Models\Source;
use App\Models\User;
use App\Scenes\SceneQuery;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use VineShelf\Formats\Intake;
use VineShelf\Geometry\Affine;
use VineShelf\Layers\FilingPlan;
use VineShelf\Layers\Layer;

/** Puts everything that an import has worked out into the database, in one transaction. */
final class Storing
{
    private const ROWS_PER_COPY = 10_000;

    /** @var list<int> layer number by index in the plan */
    private array $layers = [];

    public function __construct(private readonly Import $import, private readonly Intake $intake, private readonly FilingPlan $plan, private readonly Packer $packer) {}

    /**
     * @param array<int, int>            $meshNumbers by the source's own index, counted from 0
     * @param array<int, string|null>    $textures    kept file by the source's own index
     */
    public function store(array $meshNumbers, array $textures, Progress $progress): Project
    {
        $project = DB::transaction(function () use ($textures, $progress): Project {
            $project = $this->project();
            $source = $this->source($project);
            $this->layers($project);
            $materials = $this->materials($project, $source, $textures);
            $meshes = $this->meshes($project, $source, $materials);
            $this->objects($project, $source, $meshes, $progress);
            $project->revision++;
            $project->save();
            $this->import->fill(['project_id' => $project->id, 'source_id' => $source->id, 'state' => ImportState::Done, 'stage' => '', 'objects' => $this->intake->objects()->count()])->save();

            return $project;
        });

        return $project;
    }

    /**
     * The scene index of a project that this import has made, from what is in memory anyway.
     *
     * @param array<int, int> $meshNumbers by the source's own index
     *
     * @return array<string, string>|null null when the project had other sources before
     */
    public function index(Project $project, array $meshNumbers): ?array
    {
        $objects = $this->intake->objects();
        if ($project->next_object !== $objects->count() + 1) {
            return null;
        }
        $parents = $layers = $kinds = $triangles = $meshes = $placed = [];
        $placements = '';
        for ($row = 1; $row <= $objects->count(); $row++) {
            $parents[$row] = $objects->parents[$row];
            $layers[$row] = $this->plan->layerOf[$row] < 0 ? Layer::UNSORTED : $this->layers[$this->plan->layerOf[$row]];
            $kinds[$row] = $objects->kinds[$row];
            $mesh = $objects->meshes[$row];
            if ($mesh >= 0) {
                $triangles[$row] = $this->packer->meshes[$mesh]->triangles * $objects->drawn($row);
                $meshes[$row] = $meshNumbers[$mesh];
                $placed[$row] = strlen($placements);
                $placements .= $objects->instances[$row] ?? substr($objects->transforms, $row * 96, 96);
            }
        }

        return (new SceneQuery)->packed($project, $parents, $layers, $kinds, [], $triangles, array_map(static fn (string $name): string => str_replace("\0", '', $name), $objects->names), $meshes, $placed, $placements);
    }

    private function project(): Project
    {
        if ($this->import->project_id !== null) {
            return Project::query()->lockForUpdate()->findOrFail($this->import->project_id);
        }
        $project = Project::query()->create(['key' => Str::lower(Str::random(20)), 'name' => self::title($this->import->file_name)])->refresh();
        $project->people()->attach(User::query()->findOrFail($this->import->user_id), ['role' => 'owner']);
        $project->layers()->create(['no' => Layer::UNSORTED, 'position' => 0, 'name' => 'Unsorted', 'colour' => '#b9b3a2']);

        return $project;
    }

    private static function title(string $fileName): string
    {
        $name = trim((string) preg_replace('~[_\s]+~u', ' ', (string) preg_replace('~\.(glb|gltf|zip)$~i', '', $fileName)));

        return mb_strimwidth($name === '' ? 'Untitled' : mb_strtoupper(mb_substr($name, 0, 1)).mb_substr($name, 1), 0, 120, '…');
    }

    private function source(Project $project): Source
    {
        return $project->sources()->create([
            'name' => $this->import->file_name,
            'format' => $this->intake->format(),
            'bytes' => $this->import->bytes,
            'report' => Report::of($this->intake, $this->packer->meshes, $this->plan),
        ]);
    }

    private function layers(Project $project): void
    {
        $known = $project->layers()->where('parent_no', 0)->pluck('no', 'name')->all();
        $position = (int) $project->layers()->max('position');
        $rows = [];
        foreach ($this->plan->names as $index => $name) {
            if (isset($known[$name])) {
                $this->layers[] = (int) $known[$name];

                continue;
            }
            $this->layers[] = $project->next_layer;
            $rows[] = ['project_id' => $project->id, 'no' => $project->next_layer++, 'position' => ++$position, 'name' => $name, 'colour' => $this->plan->colours[$index]];
        }
        foreach (array_chunk($rows, 1000) as $some) {
            DB::table('layers')->insert($some);
        }
    }

    /**
     * @param array<int, string|null> $files
     *
     * @return array<int, int> material number by the source's own index
     */
    private function materials(Project $project, Source $source, array $files): array
    {
        $textures = [];
        foreach ($files as $index => $file) {
            if ($file !== null) {
                $textures[$index] = $project->next_texture++;
                DB::table('textures')->insert(['project_id' => $project->id, 'no' => $textures[$index], 'source_id' => $source->id, 'file' => $file, 'bytes' => 0]);
            }
        }
        $numbers = [];
        $rows = [];
        foreach ($this->intake->materials() as $index => $material) {
            $numbers[$index] = $project->next_material++;
            $rows[] = ['project_id' => $project->id, 'no' => $numbers[$index], 'source_id' => $source->id, 'name' => mb_scrub($material->name), 'surface' => json_encode([
                'colour' => $material->colour,
                'texture' => $material->texture === null ? null : $textures[$material->texture] ?? null,
                'metallic' => $material->metallic,
                'roughness' => $material->roughness,
                'alpha' => $material->alpha,
                'cutoff' => $material->cutoff,
                'doubleSided' => $material->doubleSided,
            ])];
        }
        foreach (array_chunk($rows, 1000) as $some) {
            DB::table('materials')->insert($some);
        }

        return $numbers;
    }

    /**
     * @param array<int, int> $materials
     *
     * @return array<int, int> mesh number by the source's own index
     */
    private function meshes(Project $project, Source $source, array $materials): array
    {
        $packs = [];
        foreach ($this->packer->packs as $index => $pack) {
            $packs[$index] = $project->next_pack++;
            DB::table('packs')->insert(['project_id' => $project->id, 'no' => $packs[$index], 'source_id' => $source->id] + $pack);
        }
        $numbers = [];
        $lines = [];
        foreach ($this->intake->meshes() as $index => $mesh) {
            $packed = $this->packer->meshes[$index];
            $numbers[$index] = $packed->number;
            $box = $packed->box->isEmpty() ? array_fill(0, 6, 0.0) : [$packed->box->minX, $packed->box->minY, $packed->box->minZ, $packed->box->maxX, $packed->box->maxY, $packed->box->maxZ];
            $lines[] = implode("\t", [
                $project->id, $packed->number, $source->id, $packs[$this->packer->packOf[$index]], $mesh->material === null ? 0 : $materials[$mesh->material] ?? 0,
                self::text($mesh->name), $packed->hash, $packed->triangles, $packed->vertices, $mesh->pieces, $packed->bytes, '\\\\x'.bin2hex(pack('e6', ...$box)),
                '['.implode(',', array_map(static fn (int $material): int => $materials[$material] ?? 0, $mesh->materials)).']',
            ]);
        }
        self::copy('meshes', 'project_id, no, source_id, pack_no, material_no, name, hash, triangles, vertices, pieces, bytes, bounds, materials', $lines);

        return $numbers;
    }

    /** @param array<int, int> $meshes */
    private function objects(Project $project, Source $source, array $meshes, Progress $progress): void
    {
        $objects = $this->intake->objects();
        $first = $project->next_object - 1;
        $position = 0;
        $lines = [];
        $identity = '\\\\x'.bin2hex(Affine::pack(Affine::IDENTITY));
        $facts = $this->packer->meshes;
        for ($row = 1; $row <= $objects->count(); $row++) {
            $mesh = $objects->meshes[$row];
            $drawn = $objects->drawn($row);
            $properties = $objects->properties[$row] ?? null;
            $lines[] = ($project->id)."\t".($first + $row)."\t".($objects->parents[$row] === 0 ? 0 : $first + $objects->parents[$row])."\t".($first + ++$position)
                ."\t".($this->plan->layerOf[$row] < 0 ? Layer::UNSORTED : $this->layers[$this->plan->layerOf[$row]])
                ."\t".($mesh < 0 ? "0\t0\t0" : $meshes[$mesh]."\t".$facts[$mesh]->triangles * $drawn."\t".$facts[$mesh]->vertices * $drawn)
                ."\t".$objects->kinds[$row]."\t".$source->id."\t".self::text($objects->names[$row])."\t".($properties === null ? '' : self::className($properties))."\t".$objects->keys[$row]
                ."\t".($mesh < 0 ? $identity : '\\\\x'.bin2hex(substr($objects->transforms, $row * 96, 96)))
                ."\t".(isset($objects->instances[$row]) ? '\\\\x'.bin2hex($objects->instances[$row]) : '\\N')
                ."\t".($properties === null ? '\\N' : self::text(str_replace('\\u0000', '', $properties)));
            if (count($lines) === self::ROWS_PER_COPY || $row === $objects->count()) {
                self::copy('objects', 'project_id, no, parent_no, position, layer_no, mesh_no, triangles, vertices, kind, source_id, name, class, source_key, transform, instances, properties', $lines);
                $lines = [];
                $progress->tell('Storing the objects', $row, $objects->count(), $row);
            }
        }
        $project->next_object += $objects->count();
        $project->next_mesh = max([$project->next_mesh, ...array_map(static fn (int $number): int => $number + 1, $meshes)]);
    }

    private static function className(string $properties): string
    {
        return preg_match('~"class":"((?:[^"\\\\]|\\\\.){1,80})"~i', $properties, $found) === 1 ? self::text((string) json_decode('"'.$found[1].'"')) : '';
    }

    /** @param list<string> $lines */
    private static function copy(string $table, string $columns, array $lines): void
    {
        if ($lines !== [] && ! DB::connection()->getPdo()->pgsqlCopyFromArray($table, $lines, "\t", '\\\\N', $columns)) {
            throw new \RuntimeException("The rows of $table could not be stored.");
        }
    }

    /** A text as a COPY line has it. Byte 0, which the database cannot hold, is taken out. */
    private static function text(string $text): string
    {
        return addcslashes(str_replace("\0", '', $text), "\\\t\n\r");
    }
}
