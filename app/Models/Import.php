<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A file on its way into a project.
 *
 * @property int $id
 * @property string $key
 * @property int $user_id
 * @property int|null $project_id the project it goes into; null until a new one is made for it
 * @property int|null $source_id
 * @property string $file_name
 * @property string $path on the disk for kept files
 * @property int $bytes
 * @property string $sort_by
 * @property string $property
 * @property string $tags_from the property that tags are made from, "" for none
 * @property string $separator what stands between several values in one, "" where a value is always one
 * @property int $landing number of the layer that what is unfiled lands in, 0 for that of whoever takes it in
 * @property string $original where the file as it came is kept already, "" for nowhere yet
 * @property ImportState $state
 * @property string $stage
 * @property int $done
 * @property int $total
 * @property int $objects
 * @property string $error
 * @property bool $stop
 * @property int $attempts workers that have begun with it
 * @property Carbon $updated_at
 */
final class Import extends Model
{
    protected $guarded = [];

    protected $attributes = [
        'state' => 'waiting',
        'stage' => '',
        'done' => 0,
        'total' => 0,
        'objects' => 0,
        'error' => '',
        'stop' => false,
        'attempts' => 0,
    ];

    protected $casts = ['state' => ImportState::class, 'stop' => 'boolean'];

    public function getRouteKeyName(): string
    {
        return 'key';
    }

    /** @return BelongsTo<Project, $this> */
    public function project(): BelongsTo
    {
        return $this->belongsTo(Project::class);
    }

    /** @return BelongsTo<Source, $this> */
    public function source(): BelongsTo
    {
        return $this->belongsTo(Source::class);
    }

    /** How far it is, for example "Reading meshes · 1,200 of 4,000 · 90,000 objects so far". */
    public function says(): string
    {
        if ($this->state === ImportState::Waiting) {
            return 'Waiting for a free worker';
        }
        $said = [$this->stage ?: 'Starting'];
        if ($this->total > 0 && $this->done > 0) {
            $said[] = number_format($this->done).' of '.number_format($this->total);
        }
        if ($this->objects > 0) {
            $said[] = number_format($this->objects).' objects so far';
        }

        return implode(' · ', $said);
    }

    public function isOver(): bool
    {
        return in_array($this->state, [ImportState::Done, ImportState::Failed, ImportState::Stopped], true);
    }

    public function percent(): int
    {
        return $this->total > 0 ? (int) min(100, floor((100 * $this->done) / $this->total)) : 0;
    }
}
