<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;

/**
 * @property int $project_id
 * @property int $no
 * @property int $pack_no
 * @property int $material_no
 * @property string $name
 * @property string $hash
 * @property int $triangles
 * @property int $vertices
 * @property int $pieces
 * @property int $bytes
 * @property string $bounds
 * @property int $source_id
 * @property int $made_of the mesh that it is a coarser version of; 0 for what came with a file
 * @property list<int> $materials every material that it uses; empty for a mesh that was taken in before they were kept
 */
final class Mesh extends Model
{
    use NumberedInProject;

    public $timestamps = false;

    protected $table = 'meshes';

    protected $guarded = [];

    protected $casts = [
        'bounds' => Casts\Bytes::class,
        'hull' => Casts\Bytes::class,
        'shape' => Casts\Bytes::class,
        'materials' => 'array',
    ];
}
