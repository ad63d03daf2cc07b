<?php

declare(strict_types=1);

namespace App\Exporting;

use App\Files\Kept;
use App\Models\Material;
use App\Models\Project;
use VineShelf\Export\Surfaces;

/** The materials and pictures of a project. */
final readonly class KeptSurfaces implements Surfaces
{
    private const TYPES = ['png' => 'image/png', 'jpg' => 'image/jpeg', 'webp' => 'image/webp'];

    /** @var array<int, Material> by number */
    private array $materials;

    public function __construct(private Project $project)
    {
        $this->materials = $project->materials()->get()->keyBy('no')->all();
    }

    public function material(int $number): ?array
    {
        $material = $this->materials[$number] ?? null;
        if ($material === null) {
            return null;
        }
        $surface = $material->surface;
        $colour = array_map(static fn (mixed $part): float => max(0.0, min(1.0, (float) $part)), $surface['colour']);

        return [
            'name' => $material->name,
            'colour' => array_slice([...$colour, 1.0, 1.0, 1.0, 1.0], 0, 4),
            'texture' => $surface['texture'],
            'metallic' => (float) ($surface['metallic'] ?? 0.0),
            'roughness' => (float) ($surface['roughness'] ?? 1.0),
            'alpha' => $surface['alpha'],
            'cutoff' => (float) $surface['cutoff'],
            'doubleSided' => (bool) $surface['doubleSided'],
            'unlit' => (bool) ($surface['unlit'] ?? false),
            'emission' => array_map(floatval(...), $surface['emission'] ?? [0.0, 0.0, 0.0]),
            'normalMap' => $surface['normalMap'] ?? null,
            'normalScale' => (float) ($surface['normalScale'] ?? 1.0),
        ];
    }

    public function picture(int $number): ?array
    {
        $texture = $this->project->textures()->where('no', $number)->first();
        $type = $texture === null ? null : self::TYPES[pathinfo($texture->file, PATHINFO_EXTENSION)] ?? null;
        $bytes = $texture === null || $type === null ? null : Kept::get($texture->file);

        return $texture === null || $type === null || $bytes === null ? null : [$type, $bytes, $texture->sampler];
    }
}
