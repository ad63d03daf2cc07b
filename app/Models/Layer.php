<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;

/**
 * @property int $project_id
 * @property int $no
 * @property int $parent_no
 * @property int $position
 * @property string $name
 * @property string $came_as the name that a file said when it made the layer, "" for layers that people made
 * @property string $colour
 * @property int $lock
 */
final class Layer extends Model
{
    use NumberedInProject;

    public $timestamps = false;

    protected $table = 'layers';

    protected $guarded = [];
}
