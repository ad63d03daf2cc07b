<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** The objects of a source come or go. What is kept for them, meshes and packs, stays until the project goes. */
final readonly class SourceEdit implements Edit
{
    /** @param bool $gone whether they go */
    public function __construct(public int $source, public int $objects, public bool $gone) {}

    public function check(Project $project): void
    {
        $name = DB::table('sources')->where('project_id', $project->id)->where('id', $this->source)->value('name');
        if (! is_string($name)) {
            throw OutOfStep::missing('The file');
        }
        $there = DB::table('objects')
            ->where('project_id', $project->id)
            ->where('source_id', $this->source)
            ->where('gone', ! $this->gone)
            ->count();
        if ($there !== $this->objects) {
            throw OutOfStep::changed("What came with $name");
        }
        if ($this->gone) {
            $this->checkNothingStandsOn($project, $name);
        } else {
            Places::checkHomes($project, 'source_id = '.$this->source);
        }
    }

    public function apply(Project $project): void
    {
        DB::update('UPDATE objects SET gone = ? WHERE project_id = ? AND source_id = ?', [$this->gone, $project->id, $this->source]);
        DB::table('sources')
            ->where('id', $this->source)
            ->update(['gone' => $this->gone]);
    }

    public function reversed(): self
    {
        return new self($this->source, $this->objects, ! $this->gone);
    }

    public function columns(Scene $scene): ?array
    {
        return null;
    }

    public function writes(): array
    {
        return ["source $this->source" => Numbers::of([1])];
    }

    public function needs(): array
    {
        return [];
    }

    public function objects(): Bits
    {
        return Bits::none(0);
    }

    public function toArray(): array
    {
        return ['source' => $this->source, 'objects' => $this->objects, 'gone' => $this->gone];
    }

    private function checkNothingStandsOn(Project $project, string $name): void
    {
        $others = DB::selectOne(
            'SELECT count(*) AS objects FROM objects o JOIN objects p ON p.project_id = o.project_id AND p.no = o.parent_no
             WHERE o.project_id = ? AND NOT o.gone AND o.source_id <> ? AND p.source_id = ?',
            [$project->id, $this->source, $this->source],
        );
        if ((int) $others->objects > 0) {
            throw OutOfStep::needed($name, number_format((int) $others->objects).' other objects stand in its groups');
        }
        $copies = DB::selectOne(
            'SELECT count(*) AS objects FROM objects o JOIN meshes m ON m.project_id = o.project_id AND m.no = o.mesh_no
             WHERE o.project_id = ? AND NOT o.gone AND o.source_id <> ? AND m.source_id = ?',
            [$project->id, $this->source, $this->source],
        );
        if ((int) $copies->objects > 0) {
            throw OutOfStep::needed($name, number_format((int) $copies->objects).' other objects are drawn with its meshes');
        }
    }
}
