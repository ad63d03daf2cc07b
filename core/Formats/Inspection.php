<?php

declare(strict_types=1);

namespace VineShelf\Formats;

use VineShelf\Geometry\Box;
use VineShelf\Scene\Kind;

/** Counts what a file holds. */
final class Inspection
{
    /**
     * @return array{format: string, objects: int, groups: int, parts: int, meshes: int, triangles: int, vertices: int, materials: int,
     *     textures: int, lights: int, cameras: int, curves: int, points: int, markers: int, bounds: array{min: array{float, float, float},
     * max: array{float, float, float}}|null, warnings: list<string>}
     *
     * @throws UnreadableFile
     */
    public static function of(Intake $intake): array
    {
        $objects = $intake->objects();
        $meshes = $intake->meshes();
        $boxes = [];
        foreach ($meshes as $index => $_) {
            $boxes[$index] = new Box;
            foreach ($intake->primitives($index) as $primitive) {
                $boxes[$index] = $boxes[$index]->with(Box::around($primitive->positions));
            }
        }
        $kinds = array_fill(0, count(Kind::cases()), 0);
        $triangles = $vertices = 0;
        for ($row = 1; $row <= $objects->count(); $row++) {
            $kinds[$objects->kinds[$row]]++;
            $drawn = $objects->drawn($row);
            if ($drawn > 0) {
                $mesh = $meshes[$objects->meshes[$row]];
                $triangles += $drawn * $mesh->triangles;
                $vertices += $drawn * $mesh->vertices;
            }
        }

        return [
            'format' => $intake->format(),
            'objects' => $objects->count(),
            'groups' => $kinds[Kind::Group->value],
            'parts' => $kinds[Kind::Part->value],
            'meshes' => count($meshes),
            'triangles' => $triangles,
            'vertices' => $vertices,
            'materials' => count($intake->materials()),
            'textures' => count($intake->textures()),
            'lights' => $kinds[Kind::Light->value],
            'cameras' => $kinds[Kind::Camera->value],
            'curves' => $kinds[Kind::Curve->value],
            'points' => $kinds[Kind::Points->value],
            'markers' => $kinds[Kind::Marker->value],
            'bounds' => Bounds::of($intake, $boxes)->toArray(),
            'warnings' => $intake->warnings(),
        ];
    }
}
