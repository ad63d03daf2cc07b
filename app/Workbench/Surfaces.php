<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Models\Project;
use VineShelf\Scene\DrawRecords;

/** How the canvas draws the materials of a project. */
final class Surfaces
{
    /**
     * @return array<int, array{int, int|null, int, float, int, int, int|null, float}> colour, texture, whether it is see-through, cutoff of
     *     a masked one, colour of the light that it gives, whether it is shown whatever the light, texture that tilts the surface, and how
     *     much; by material number
     */
    public static function of(Project $project): array
    {
        $materials = [];
        foreach ($project->materials()->get() as $material) {
            $surface = $material->surface;
            $colour = DrawRecords::colour(
                $surface['alpha'] === 'BLEND' ? $surface['colour'] : [...array_slice($surface['colour'], 0, 3), 1.0],
            );
            $materials[$material->no] = [
                $colour,
                $surface['texture'],
                $surface['alpha'] === 'BLEND' ? 1 : 0,
                $surface['alpha'] === 'MASK' ? $surface['cutoff'] : 0.0,
                DrawRecords::colour([...$surface['emission'] ?? [0, 0, 0], 0.0]),
                $surface['unlit'] ?? false ? 1 : 0,
                $surface['normalMap'] ?? null,
                $surface['normalScale'] ?? 1.0,
            ];
        }

        return $materials;
    }
}
