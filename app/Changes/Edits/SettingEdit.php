<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** A setting of the project. */
final readonly class SettingEdit implements Edit
{
    public const SETTINGS = ['sorts_what_comes'];

    public function __construct(public string $setting, public bool $before, public bool $after)
    {
        if (! in_array($setting, self::SETTINGS, true)) {
            throw new \InvalidArgumentException("A project has no setting \"$setting\".");
        }
    }

    public function check(Project $project): void
    {
        $now = DB::table('projects')->where('id', $project->id)->value($this->setting);
        if ((bool) $now !== $this->before) {
            throw OutOfStep::changed('That setting');
        }
    }

    public function apply(Project $project): void
    {
        $project->setAttribute($this->setting, $this->after);
        DB::table('projects')
            ->where('id', $project->id)
            ->update([$this->setting => $this->after]);
    }

    public function reversed(): self
    {
        return new self($this->setting, $this->after, $this->before);
    }

    public function columns(Scene $scene): array
    {
        return [];
    }

    public function writes(): array
    {
        return ["setting $this->setting" => Numbers::of([1])];
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
        return ['setting' => $this->setting, 'before' => $this->before, 'after' => $this->after];
    }
}
