<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** An object's name. */
final readonly class NameEdit implements Edit
{
    public function __construct(public int $number, public string $before, public string $after) {}

    public function check(Project $project): void
    {
        if (
            DB::table('objects')->where('project_id', $project->id)->where('no', $this->number)->where('gone', false)->value('name') !==
            $this->before
        ) {
            throw OutOfStep::changed('The name of '.($this->before ?: 'the object'));
        }
    }

    public function apply(Project $project): void
    {
        DB::table('objects')
            ->where('project_id', $project->id)
            ->where('no', $this->number)
            ->update(['name' => $this->after]);
    }

    public function reversed(): self
    {
        return new self($this->number, $this->after, $this->before);
    }

    public function columns(Scene $scene): array
    {
        return \VineShelf\Search\NameIndex::renamed($scene, $scene->row($this->number), $this->after);
    }

    public function writes(): array
    {
        return ['name' => $this->objects()];
    }

    public function needs(): array
    {
        return ['there' => $this->objects()];
    }

    public function objects(): Bits
    {
        return Bits::ofRows($this->number, [$this->number]);
    }

    public function toArray(): array
    {
        return ['name' => $this->number, 'before' => $this->before, 'after' => $this->after];
    }
}
