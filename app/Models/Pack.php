<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;

/**
 * @property int $project_id
 * @property int $no
 * @property string $file
 * @property int $bytes
 * @property string $versions entries of {@see \VineShelf\Scene\MeshVersions}, "" in packs of meshes as they came
 */
final class Pack extends Model
{
    use NumberedInProject;

    public $timestamps = false;

    protected $table = 'packs';

    protected $guarded = [];

    protected $casts = ['versions' => Casts\Bytes::class];
}
