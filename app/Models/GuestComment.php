<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * What a guest has said of a view, at a place in it.
 *
 * @property int $id
 * @property int $project_id
 * @property int $view_no
 * @property int|null $share_link_id null once the link is deleted
 * @property string $by as the guest calls themselves
 * @property string $words
 * @property list<float>|null $place metres as the canvas counts; null for the view as a whole
 * @property bool $done
 * @property Carbon $made_at
 */
final class GuestComment extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['place' => 'array', 'done' => 'boolean', 'made_at' => 'datetime'];
}
