<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\ObjectsEdit;
use App\Models\Incoming;
use App\Models\Project;
use VineShelf\Scene\Kind;

/**
 * Objects that people make, beside those that come in files: groups and copies. They are stored as gone, and one step of the change brings
 * them; taken back, they are gone again, and their numbers are never used anew.
 */
final class NewObjects
{
    private const COLUMNS =
        'project_id, no, parent_no, position, layer_no, mesh_no, triangles, vertices, kind, lock, gone, source_id, name, class, '.
        'source_key, transform, instances, properties';

    private readonly Incoming $rows;

    private readonly int $first;

    public function __construct(private readonly Project $project)
    {
        $this->rows = new Incoming('objects', self::COLUMNS);
        $this->first = $project->next_object;
    }

    /** @return int its number */
    public function group(string $name, int $parent, int $position, int $layer): int
    {
        return $this->add($parent, $position, $layer, 0, 0, 0, Kind::Group->value, 0, $name, '', '', null, null);
    }

    /**
     * @param string      $transform as {@see \VineShelf\Geometry\Affine::shortened()} has it
     * @param string|null $instances placements, 96 bytes each
     *
     * @return int its number
     */
    public function add(
        int $parent,
        int $position,
        int $layer,
        int $mesh,
        int $triangles,
        int $vertices,
        int $kind,
        int $lock,
        string $name,
        string $class,
        string $transform,
        ?string $instances,
        ?string $properties,
    ): int {
        $project = $this->project;
        $number = $project->next_object++;
        $this->rows->add(
            implode("\t", [
                $project->id,
                $number,
                $parent,
                $position,
                $layer,
                $mesh,
                $triangles,
                $vertices,
                $kind,
                $lock,
                't',
                0,
                Incoming::text($name),
                Incoming::text($class),
                // No file has it: it is found again in this project alone.
                "+$project->key-$number",
                Incoming::bytes($transform),
                $instances === null ? '\\N' : Incoming::bytes($instances),
                $properties === null ? '\\N' : Incoming::text($properties),
            ]),
        );

        return $number;
    }

    /** The step that brings them all. */
    public function step(): ObjectsEdit
    {
        $this->rows->finish();
        $numbers = range($this->first, $this->project->next_object - 1);

        return new ObjectsEdit('gone', [1 => $numbers], [0 => $numbers]);
    }
}
