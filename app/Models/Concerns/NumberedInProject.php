<?php

declare(strict_types=1);

namespace App\Models\Concerns;

use App\Models\Project;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A row whose key is its project and its number in it. */
trait NumberedInProject
{
    public function initializeNumberedInProject(): void
    {
        $this->incrementing = false;
        $this->primaryKey = 'no';
    }

    /** @return BelongsTo<Project, $this> */
    public function project(): BelongsTo
    {
        return $this->belongsTo(Project::class);
    }

    /** @param Builder<static> $query */
    protected function setKeysForSaveQuery($query)
    {
        return $query
            ->where('project_id', $this->getAttribute('project_id'))
            ->where('no', $this->getOriginal('no') ?? $this->getAttribute('no'));
    }
}
