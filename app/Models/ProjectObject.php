<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;
use VineShelf\Scene\Kind;

/**
 * An object of a project. Read one at a time; whole models are read through the scene index.
 *
 * @property int $project_id
 * @property int $no
 * @property int $parent_no
 * @property int $layer_no
 * @property int $mesh_no
 * @property int $triangles
 * @property int $vertices
 * @property Kind $kind
 * @property int $lock
 * @property bool $gone
 * @property string $name
 * @property string $class
 * @property string $source_key
 * @property array<string, mixed>|null $properties
 */
final class ProjectObject extends Model
{
    use NumberedInProject;

    public $timestamps = false;

    protected $table = 'objects';

    protected $guarded = [];

    protected $casts = ['kind' => Kind::class, 'properties' => 'array', 'gone' => 'boolean'];
}
