<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A file that was taken in.
 *
 * @property int $id
 * @property int $project_id
 * @property string $name
 * @property string $format
 * @property int $bytes
 * @property array<string, mixed> $report
 * @property string $original where the file as it came is kept, "" when it is not
 * @property Carbon|null $original_removed_at when somebody had it removed
 * @property int $kept bytes on the disk
 * @property string $hulls file of the points that can lie outermost, "" if there is none
 * @property string $coarsened the meshes that were looked at for coarser versions, as {@see \VineShelf\Scene\Members} packs numbers
 * @property string $held_back why exports leave it out; empty when they do not
 * @property bool $gone whether taking it in was taken back
 * @property Carbon $created_at
 */
final class Source extends Model
{
    protected $guarded = [];

    protected $attributes = ['kept' => 0, 'gone' => false, 'hulls' => '', 'held_back' => '', 'original' => ''];

    protected $casts = ['gone' => 'boolean', 'coarsened' => Casts\Bytes::class, 'report' => 'array', 'original_removed_at' => 'datetime'];

    /** @return BelongsTo<Project, $this> */
    public function project(): BelongsTo
    {
        return $this->belongsTo(Project::class);
    }
}
