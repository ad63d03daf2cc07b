<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Files\Kept;
use App\Files\PictureSize;
use App\Models\Casts\Bytes;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Facts\FactsBuilder;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\Hulls;
use VineShelf\Geometry\ShapeIndex;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Members;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\MeshWeights;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Search\NameIndex;

/** Reads a whole project from the database and builds every column of its scene index. */
final class SceneQuery
{
    private const CHUNK = 20_000;

    /** @return array<string, string> packed column by name */
    public function columns(Project $project): array
    {
        $parents = $positions = $layers = $kinds = $locks = $triangles = $meshes = $names = [];
        $placements = '';
        $placed = [];
        foreach (
            $this->rows($project) as [$number, $parent, $position, $layer, $kind, $lock, $weight, $mesh, $name, $transform, $instances]
        ) {
            $number = (int) $number;
            $parents[$number] = (int) $parent;
            $positions[] = (int) $position;
            $layers[$number] = (int) $layer;
            $kinds[$number] = (int) $kind;
            if ($lock !== '0') {
                $locks[$number] = (int) $lock;
            }
            $names[$number] = $name;
            if ($mesh !== '0') {
                $triangles[$number] = (int) $weight;
                $meshes[$number] = (int) $mesh;
                $placed[$number] = strlen($placements);
                $placements .=
                    $instances === '\\N'
                        ? Affine::lengthened((string) hex2bin(substr($transform, 3)))
                        : (string) hex2bin(substr($instances, 3));
            }
        }
        $numbers = array_keys($parents);
        array_multisort($positions, SORT_ASC, $numbers);
        $ordered = [];
        foreach ($numbers as $number) {
            $ordered[$number] = $parents[$number];
        }

        return $this->packed($project, $ordered, $layers, $kinds, $locks, $triangles, $names, $meshes, $placed, $placements);
    }

    /** @return array<string, string> which rows each tag and each fixed set has */
    private function members(Project $project, Scene $scene): array
    {
        $columns = [];
        foreach (['tag' => 'tags', 'set' => 'sets', 'value' => 'own_values'] as $what => $table) {
            foreach (
                DB::table($table)
                    ->where('project_id', $project->id)
                    ->get(['no', 'members']) as $row
            ) {
                $columns["$what.$row->no"] = Members::column($scene, Members::unpack(Bytes::read($row->members)));
            }
        }

        return $columns;
    }

    /**
     * The columns from what is already in memory.
     *
     * @param array<int, int>    $parents    parent's number by object number, in the order of siblings
     * @param array<int, int>    $layers     by object number, as are the following
     * @param array<int, int>    $kinds
     * @param array<int, int>    $locks
     * @param array<int, int>    $triangles
     * @param array<int, string> $names
     * @param array<int, int>    $meshes
     * @param array<int, int>    $placed     offset of its first placement
     * @param string             $placements packed transforms, 96 bytes each
     *
     * @return array<string, string>
     */
    public function packed(
        Project $project,
        array $parents,
        array $layers,
        array $kinds,
        array $locks,
        array $triangles,
        array $names,
        array $meshes,
        array $placed,
        string $placements,
    ): array {
        $columns = SceneBuilder::columns($parents, $layers, $kinds, $locks, $triangles);
        $columns += $this->members($project, new Scene(new ColumnsInMemory($columns)));
        $facts = $this->meshes($project);
        $order = Packed::uint32($columns['no'], 0, intdiv(strlen($columns['no']), 4));

        return $columns +
            NameIndex::columns(array_map(static fn (int $number): string => $names[$number] ?? '', $order)) +
            DrawRecords::columns($order, $meshes, $placed, $placements, $facts, $this->beside($project, 'hulls'), $project->origin) + [
                'shapes' => ShapeIndex::of($this->beside($project, 'shapes'))->pack(),
                'versions' => $this->versions($project),
                'meshweights' => MeshWeights::pack($facts),
            ];
    }

    /** The column of the coarser versions that there are, {@see MeshVersions}. */
    public function versions(Project $project): string
    {
        $gone = $project->sources()->where('gone', true)->pluck('id')->all();
        $packs = DB::table('packs')->where('project_id', $project->id)->whereNotNull('versions')->whereNotIn('source_id', $gone);

        return MeshVersions::column($packs->pluck('versions', 'no')->map(Bytes::read(...))->all());
    }

    /**
     * What the files say about the objects, as columns beside the others.
     *
     * @return array<string, string> packed column by name
     */
    public function facts(Project $project, Scene $scene): array
    {
        $materials = [];
        $gone = $project->sources()->where('gone', true)->pluck('id')->all();
        foreach ($project->materials()->whereNotIn('source_id', $gone)->get() as $material) {
            $colour = DrawRecords::colour($material->surface['colour']);
            $materials[$material->no] = [
                $material->name,
                $material->surface['texture'] !== null || ($material->surface['normalMap'] ?? null) !== null,
                sprintf('#%02x%02x%02x', $colour & 255, ($colour >> 8) & 255, ($colour >> 16) & 255),
                $material->source_id,
                array_values(array_filter([$material->surface['texture'], $material->surface['normalMap'] ?? null], is_int(...))),
            ];
        }
        $materialsOf = [];
        foreach (
            DB::table('meshes')
                ->where('project_id', $project->id)
                ->get(['no', 'material_no', 'materials']) as $mesh
        ) {
            /** @var list<int> $several */
            $several = json_decode((string) $mesh->materials, true) ?: [];
            $materialsOf[(int) $mesh->no] = $several === [] && $mesh->material_no > 0 ? [(int) $mesh->material_no] : $several;
        }
        $facts = new FactsBuilder(
            $scene->count(),
            $materialsOf,
            $materials,
            array_map(strval(...), $project->sources()->where('gone', false)->pluck('name', 'id')->all()) + self::made($project),
            $this->pictures($project),
        );
        foreach (
            $this->copied(
                $project,
                'no, mesh_no, vertices, source_id, class, properties, CASE WHEN mesh_no = 0 AND kind <> 0 THEN transform END',
            ) as [$number, $mesh, $vertices, $source, $class, $properties, $transform]
        ) {
            $row = $scene->row((int) $number);
            if ($row === 0) {
                continue;
            }
            $facts->add(
                $row,
                (int) $mesh,
                (int) $vertices,
                (int) $source,
                self::plain($class),
                $properties === '\\N' ? null : self::plain($properties),
            );
            if ($transform !== '\\N') {
                $m = Affine::unpack(Affine::lengthened((string) hex2bin(substr($transform, 3))));
                $facts->spot($row, [$m[3], $m[7], $m[11]]);
            }
        }

        return $facts->columns();
    }

    /** @return array<int, string> what came in no file */
    private static function made(Project $project): array
    {
        $made = DB::table('objects')->where('project_id', $project->id)->where('source_id', 0)->where('gone', false)->exists();

        return $made ? [0 => 'Made here'] : [];
    }

    /** @return \Generator<int, list<string>> the fields of every object that is not gone, as COPY writes them */
    private function copied(Project $project, string $fields): \Generator
    {
        $pdo = DB::connection()->getPdo();
        for ($first = 0; $first < $project->next_object; $first += self::CHUNK) {
            $query =
                "(SELECT $fields FROM objects WHERE project_id = $project->id AND no >= $first AND no < ".
                ($first + self::CHUNK).
                ' AND NOT gone ORDER BY no)';
            foreach ($pdo->pgsqlCopyToArray($query) ?: [] as $line) {
                yield explode("\t", rtrim((string) $line, "\n"));
            }
        }
    }

    private static function plain(string $field): string
    {
        return str_contains($field, '\\') ? stripcslashes($field) : $field;
    }

    /** @return \Generator<int, array{string, string, string, string, string, string, string, string, string, string, string}> */
    private function rows(Project $project): \Generator
    {
        $columns = 'no, parent_no, position, layer_no, kind, lock, triangles, mesh_no, name, transform, instances';
        foreach ($this->copied($project, $columns) as $fields) {
            /** @var array{string, string, string, string, string, string, string, string, string, string, string} $fields */
            $fields[8] = self::plain($fields[8]);
            yield $fields;
        }
    }

    /** Entries of {@see Hulls} or {@see ShapeIndex}. @param 'hulls'|'shapes' $what */
    private function beside(Project $project, string $what): string
    {
        $entries = '';
        foreach ($project->sources()->where('gone', false)->where('hulls', '<>', '')->orderBy('id')->pluck('hulls') as $file) {
            $entries .= Kept::get(dirname((string) $file).'/'.$what) ?? '';
        }
        // Meshes that were put in place of others came with no file.
        $column = ['hulls' => 'hull', 'shapes' => 'shape'][$what];
        foreach (DB::table('meshes')->where('project_id', $project->id)->whereNotNull($column)->orderBy('no')->pluck($column) as $entry) {
            $entries .= Bytes::read($entry);
        }

        return $entries;
    }

    /** @return array<int, array{bytes: int, width: int, height: int}> four bytes a pixel, as it stands on the graphics card; by number */
    private function pictures(Project $project): array
    {
        $pictures = [];
        foreach ($project->textures()->get() as $texture) {
            [$width, $height] = $texture->width > 0 ? [$texture->width, $texture->height] : PictureSize::of($texture->file);
            $pictures[$texture->no] = ['bytes' => 4 * $width * $height, 'width' => $width, 'height' => $height];
        }

        return $pictures;
    }

    /** @return array<int, array{pack: int, triangles: int, colour: int, box: Box, vertices: int, pieces: int, bytes: int}> by mesh */
    private function meshes(Project $project): array
    {
        $colours = [];
        foreach ($project->materials()->get() as $material) {
            $colours[$material->no] = DrawRecords::colour($material->surface['colour']);
        }
        $meshes = [];
        // As rows, not as models: there may be tens of thousands.
        $rows = DB::table('meshes')
            ->where('project_id', $project->id)
            ->selectRaw("no, pack_no, triangles, vertices, pieces, bytes, material_no, encode(bounds, 'hex') AS bounds");
        foreach ($rows->get() as $mesh) {
            $b = Packed::float64((string) hex2bin($mesh->bounds), 0, 6);
            $meshes[(int) $mesh->no] = [
                'pack' => (int) $mesh->pack_no,
                'triangles' => (int) $mesh->triangles,
                'colour' => $colours[$mesh->material_no] ?? 0xffc0c0c0,
                'box' => new Box($b[0], $b[1], $b[2], $b[3], $b[4], $b[5]),
                'vertices' => (int) $mesh->vertices,
                'pieces' => (int) $mesh->pieces,
                'bytes' => (int) $mesh->bytes,
            ];
        }

        return $meshes;
    }
}
