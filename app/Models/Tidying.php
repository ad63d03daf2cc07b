<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\DoneInQueue;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * A report on what is untidy in a project, as one person asked for it.
 *
 * @property int $id
 * @property string $key
 * @property int $project_id
 * @property int $user_id
 * @property int $percent
 * @property bool $stop
 * @property string $says why it failed
 * @property int $revision of the project that it looked at
 * @property string $report what was found, packed
 * @property Carbon $created_at
 * @property Carbon $updated_at
 */
final class Tidying extends Model
{
    use DoneInQueue;

    protected $guarded = [];

    protected $attributes = ['state' => 'waiting', 'percent' => 0, 'stop' => false, 'says' => ''];

    protected $casts = ['stop' => 'boolean', 'report' => Casts\Bytes::class];
}
