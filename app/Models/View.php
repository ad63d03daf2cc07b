<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;
use VineShelf\Folders\Shelved;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Settings;

/**
 * A saved view state. A facet that the view does not keep is null.
 *
 * @property int $project_id
 * @property int $no
 * @property int $folder_no number of the folder that it stands in, 0 for none
 * @property int $position
 * @property string $name
 * @property array{eye: list<float>, target: list<float>, fov: float, tall?: float, up?: list<float>}|null $camera metres, z up; field of
 *     view in degrees; tall: metres that a parallel picture is high
 * @property int $newcomers what layers get that are newer than the view: 0 Hidden, 5 Full, -1 as the desk has it
 * @property int $known_layer the newest layer that the view knows
 * @property int|null $known_object the newest object that the view knows, null when it was kept before that was noted
 * @property string $picture file on the disk for kept files, empty for none
 * @property Carbon $kept_at
 */
final class View extends Model implements Shelved
{
    use NumberedInProject;

    public $timestamps = false;

    protected $table = 'views';

    protected $guarded = [];

    protected $casts = ['camera' => 'array', 'rungs' => Casts\Bytes::class, 'own_output' => Casts\Bytes::class, 'kept_at' => 'datetime'];

    public function number(): int
    {
        return $this->no;
    }

    public function folder(): int
    {
        return $this->folder_no;
    }

    public function position(): int
    {
        return $this->position;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function keepsRungs(): bool
    {
        return $this->getAttributes()['rungs'] !== null;
    }

    public function keepsOutput(): bool
    {
        return ($this->getAttributes()['own_output'] ?? null) !== null;
    }

    /** Its own output settings; null when it keeps none. */
    public function output(): ?OutputSettings
    {
        return $this->keepsOutput() ? OutputSettings::unpack(Casts\Bytes::read($this->getAttributes()['own_output'])) : null;
    }

    public function settings(): Settings
    {
        return Settings::unpack(Casts\Bytes::read($this->getAttributes()['rungs']));
    }
}
