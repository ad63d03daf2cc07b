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
 * @property int $turn rises whenever the change is made, taken back or done again: the highest was the last
 * @property int|null $undone_by who took it back
 * @property string $barred why it cannot be taken back, empty while nobody has found out that it cannot
 * @property string $as_it_was what views would keep to show what they showed before; "" where none shows anything differently
 * @property int|null $objects how many it changed; null where nobody counted
 * @property list<array{int, int, int}> $turns each time that it was taken back or done again: its turn, 1 for taken back, Unix time
 * @property Carbon|null $turned_at the last of these times
 * @property bool $let_go whether nobody can do it again any more
 * @property bool $thinned whether what it did is no longer kept
 * @property Carbon $made_at
 */
final class Change extends Model
{
    use NumberedInProject;

    /** Everything but what it did, which may be large. */
    public const HEAD = [
        'project_id',
        'no',
        'turn',
        'user_id',
        'name',
        'undone',
        'undone_by',
        'barred',
        'made_at',
        'objects',
        'thinned',
        'let_go',
    ];

    public $timestamps = false;

    protected $table = 'changes';

    protected $guarded = [];

    protected $casts = [
        'edits' => Casts\Bytes::class,
        'as_it_was' => Casts\Bytes::class,
        'undone' => 'boolean',
        'thinned' => 'boolean',
        'let_go' => 'boolean',
        'turns' => 'array',
        'turned_at' => 'datetime',
        'made_at' => 'datetime',
    ];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<User, $this> */
    public function undoneBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'undone_by');
    }
}
