<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;

/**
 * @property int $project_id
 * @property int $no
 * @property string $file
 * @property int $bytes of the file; 0 where it was taken in before that was kept
 * @property int $width pixels; likewise
 * @property int $height
 * @property array<string, int> $sampler as {@see \VineShelf\Formats\TakenTexture} has it
 */
final class Texture extends Model
{
    use NumberedInProject;

    public $timestamps = false;

    protected $table = 'textures';

    protected $guarded = [];

    protected $casts = ['sampler' => 'array'];
}
