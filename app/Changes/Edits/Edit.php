<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use VineShelf\Scene\Scene;

/** One reversible step of a change. */
interface Edit
{
    /**
     * Looks whether the project is as the step expects it, before a change is taken back or done again.
     *
     * @throws OutOfStep when something has changed meanwhile, or something else stands on what the step would remove
     */
    public function check(Project $project): void;

    /** Writes the step to the database. */
    public function apply(Project $project): void;

    /** The step that takes this one back. */
    public function reversed(): self;

    /**
     * What the step does to the scene index.
     *
     * @return array<string, string>|null packed columns that differ, null when the index must be built again
     */
    public function columns(Scene $scene): ?array;

    /** @return array<string, mixed> what {@see Edits::unpack()} makes the step from again */
    public function toArray(): array;
}
