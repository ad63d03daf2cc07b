<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** What came in a file is kept out of exports, for another reason, or no longer. */
final readonly class HoldBackEdit implements Edit
{
    /** @param string $before the reason; empty for none */
    public function __construct(public int $source, public string $before, public string $after) {}

    public function check(Project $project): void
    {
        $now = DB::table('sources')->where('project_id', $project->id)->where('id', $this->source)->value('held_back');
        if (! is_string($now)) {
            throw OutOfStep::missing('The file');
        }
        if ($now !== $this->before) {
            throw OutOfStep::changed('Why exports leave out what came in that file');
        }
    }

    public function apply(Project $project): void
    {
        DB::table('sources')
            ->where('project_id', $project->id)
            ->where('id', $this->source)
            ->update(['held_back' => $this->after]);
    }

    public function reversed(): self
    {
        return new self($this->source, $this->after, $this->before);
    }

    public function columns(Scene $scene): array
    {
        return [];
    }

    public function writes(): array
    {
        return ['sources' => Numbers::of([$this->source])];
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
        return ['held' => $this->source, 'before' => $this->before, 'after' => $this->after];
    }
}
