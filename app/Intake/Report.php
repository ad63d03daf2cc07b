<?php

declare(strict_types=1);

namespace App\Intake;

use VineShelf\Formats\Bounds;
use VineShelf\Formats\Intake;
use VineShelf\Geometry\PackedMesh;
use VineShelf\Layers\FilingPlan;
use VineShelf\Scene\Kind;
use VineShelf\Tags\TaggingPlan;

/** What the take-in report tells about a source. */
final class Report
{
    /**
     * @param array<int, PackedMesh> $meshes by the source's own index
     *
     * @return array<string, mixed>
     */
    public static function of(Intake $intake, array $meshes, FilingPlan $plan, TaggingPlan $tagging): array
    {
        $objects = $intake->objects();
        $kinds = array_fill(0, count(Kind::cases()), 0);
        $triangles = $unnamed = 0;
        $filed = [];
        $taken = $intake->meshes();
        for ($row = 1, $count = $objects->count(); $row <= $count; $row++) {
            $kinds[$objects->kinds[$row]]++;
            $unnamed += $objects->called($row, $taken) === '' ? 1 : 0;
            $filed[$plan->layerOf[$row]] = ($filed[$plan->layerOf[$row]] ?? 0) + 1;
            $mesh = $objects->meshes[$row];
            if ($mesh >= 0) {
                $triangles += $meshes[$mesh]->triangles * $objects->drawn($row);
            }
        }
        $hashes = $boxes = [];
        $stored = 0;
        foreach ($meshes as $index => $mesh) {
            $boxes[$index] = $mesh->box;
            $stored += $mesh->bytes;
            $hashes[$mesh->hash] = ($hashes[$mesh->hash] ?? 0) + 1;
        }
        $layers = [];
        foreach ($plan->names as $index => $name) {
            $layers[] = ['name' => $name, 'objects' => $filed[$index] ?? 0];
        }

        return [
            'kinds' => array_combine(array_map(static fn (Kind $kind): string => $kind->name, Kind::cases()), $kinds),
            'objects' => $objects->count(),
            'meshes' => count($meshes),
            'triangles' => $triangles,
            'stored' => $stored,
            'materials' => count($intake->materials()),
            'textures' => count($intake->textures()),
            'bounds' => Bounds::of($intake, $boxes)->toArray(),
            'unnamed' => $unnamed,
            'repeats' => array_sum(array_map(static fn (int $times): int => $times - 1, $hashes)),
            'how' => $plan->how,
            'layers' => $layers,
            'unsorted' => $filed[-1] ?? 0,
            'tagsFrom' => $tagging->from,
            'tags' => array_map(
                static fn (string $name, array $rows): array => ['name' => $name, 'objects' => count($rows)],
                $tagging->names,
                $tagging->rows,
            ),
            'warnings' => $intake->warnings(),
        ];
    }
}
