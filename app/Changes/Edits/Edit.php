<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use VineShelf\Scene\Bits;
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

    /**
     * What the step writes: by what it is, which of it. A step that writes the same later stands on this one.
     *
     * @return array<string, Bits> object numbers by "layer", "lock", "there", "name", "nesting" or "mesh", and by "tags members" and the
     *     like; row numbers by table
     */
    public function writes(): array;

    /**
     * What has to be there for the step: objects by "there", rows by table.
     *
     * @return array<string, Bits>
     */
    public function needs(): array;

    /** Numbers of the objects that it changes. */
    public function objects(): Bits;

    /** @return array<string, mixed> what {@see Edits::unpack()} makes the step from again */
    public function toArray(): array;
}
