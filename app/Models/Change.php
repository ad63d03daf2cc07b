<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * One undoable step of a project's history.
 *
 * @property int $project_id
 * @property int $no
 * @property int|null $user_id
 * @property string $name
 * @property string $edits
 * @property bool $undone
 * @property Carbon $made_at
 */
final class Change extends Model
{
    use NumberedInProject;

    public $timestamps = false;

    protected $table = 'changes';

    protected $guarded = [];

    protected $casts = ['edits' => Casts\Bytes::class, 'undone' => 'boolean', 'made_at' => 'datetime'];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
