<?php

declare(strict_types=1);

namespace App\Models\Concerns;

use App\Models\Project;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What one person has asked a project for and the queue works out: known by a key that nobody can guess.
 *
 * @property string $state "waiting", "running", "done", "failed" or "stopped"
 */
trait DoneInQueue
{
    public function getRouteKeyName(): string
    {
        return 'key';
    }

    /** @return BelongsTo<Project, $this> */
    public function project(): BelongsTo
    {
        return $this->belongsTo(Project::class);
    }

    public function isOver(): bool
    {
        return in_array($this->state, ['done', 'failed', 'stopped'], true);
    }
}
