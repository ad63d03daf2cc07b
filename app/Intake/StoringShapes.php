<?php

declare(strict_types=1);

namespace App\Intake;

use App\Files\PictureSize;
use App\Models\Incoming;
use App\Models\Project;
use App\Models\Source;

/** What objects look like, on its way into the database: textures and materials, then packs and the meshes in them. */
final readonly class StoringShapes
{
    public function __construct(private Prepared $prepared, private Project $project, private Source $source) {}

    public function store(): void
    {
        $this->materials();
        $this->meshes();
    }

    private function materials(): void
    {
        $textures = $rows = [];
        foreach ($this->prepared->textures as $index => $file) {
            if ($file !== null) {
                $textures[$index] = $this->project->next_texture++;
                [$width, $height, $bytes] = PictureSize::of($file);
                $rows[] = [
                    'project_id' => $this->project->id,
                    'no' => $textures[$index],
                    'source_id' => $this->source->id,
                    'file' => $file,
                    'bytes' => $bytes,
                    'width' => $width,
                    'height' => $height,
                    'sampler' => json_encode((object) $this->prepared->intake->textures()[$index]->sampler, JSON_THROW_ON_ERROR),
                ];
            }
        }
        Incoming::insert('textures', $rows);
        $rows = [];
        foreach ($this->prepared->intake->materials() as $index => $material) {
            $name = str_replace("\0", '', mb_scrub($material->name));
            $rows[] = [
                'project_id' => $this->project->id,
                'no' => $this->prepared->materials[$index],
                'source_id' => $this->source->id,
                'name' => $name,
                'surface' => json_encode([
                    'colour' => $material->colour,
                    'texture' => $material->texture === null ? null : $textures[$material->texture] ?? null,
                    'metallic' => $material->metallic,
                    'roughness' => $material->roughness,
                    'alpha' => $material->alpha,
                    'cutoff' => $material->cutoff,
                    'doubleSided' => $material->doubleSided,
                    'unlit' => $material->unlit,
                    'emission' => $material->emission,
                    'normalMap' => $material->normalMap === null ? null : $textures[$material->normalMap] ?? null,
                    'normalScale' => $material->normalScale,
                ]),
            ];
        }
        Incoming::insert('materials', $rows);
    }

    private function meshes(): void
    {
        $packer = $this->prepared->packer;
        $packs = $rows = [];
        foreach ($packer->packs as $index => $pack) {
            $packs[$index] = $this->project->next_pack++;
            $rows[] = ['project_id' => $this->project->id, 'no' => $packs[$index], 'source_id' => $this->source->id] + $pack;
        }
        Incoming::insert('packs', $rows);
        $materials = $this->prepared->materials;
        [$projectId, $sourceId] = [$this->project->id, $this->source->id];
        $rows = new Incoming(
            'meshes',
            'project_id, no, source_id, pack_no, material_no, name, hash, triangles, vertices, pieces, bytes, bounds, materials',
        );
        foreach ($this->prepared->intake->meshes() as $index => $mesh) {
            $packed = $packer->meshes[$index];
            $box = $packed->box->isEmpty() ? array_fill(0, 6, 0.0) : $packed->box->toList();
            $rows->add(
                implode("\t", [
                    $projectId,
                    $packed->number,
                    $sourceId,
                    $packs[$packer->packOf[$index]],
                    $mesh->material === null ? 0 : $materials[$mesh->material] ?? 0,
                    Incoming::text($mesh->name),
                    $packed->hash,
                    $packed->triangles,
                    $packed->vertices,
                    $mesh->pieces,
                    $packed->bytes,
                    Incoming::bytes(pack('e6', ...$box)),
                    '['.implode(',', array_map(static fn (int $material): int => $materials[$material] ?? 0, $mesh->materials)).']',
                ]),
            );
        }
        $rows->finish();
    }
}
