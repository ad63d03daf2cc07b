<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;

/**
 * @property int $project_id
 * @property int $no
 * @property int $source_id
 * @property string $name
 * @property array{colour: list<float>, texture: int|null, metallic: float, roughness: float, alpha: string, cutoff: float,
 *     doubleSided: bool} $surface
 */
final class Material extends Model
{
    use NumberedInProject;

    public $timestamps = false;

    protected $table = 'materials';

    protected $guarded = [];

    protected $casts = ['surface' => 'array'];
}
