<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * One step of a desk that can be taken back.
 *
 * @property int $project_id
 * @property int $user_id
 * @property int $no
 * @property string $name
 * @property string $before packed rung settings
 * @property string $after packed rung settings
 * @property bool $undone
 * @property array<string, mixed>|null $facets_before what else of the desk it changed, as {@see Desk::facets()} gives it; null for nothing
 * @property array<string, mixed>|null $facets_after
 */
final class DeskStep extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'no';

    protected $table = 'desk_steps';

    protected $guarded = [];

    protected $casts = [
        'before' => Casts\Bytes::class,
        'after' => Casts\Bytes::class,
        'undone' => 'boolean',
        'facets_before' => 'array',
        'facets_after' => 'array',
    ];

    protected function setKeysForSaveQuery($query)
    {
        return $query->where('project_id', $this->project_id)->where('user_id', $this->user_id)->where('no', $this->no);
    }
}
