<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use VineShelf\Organizers\Organizers;
use VineShelf\Views\Copying;

/**
 * One model being organized.
 *
 * @property int $id
 * @property string $key
 * @property string $name
 * @property string $picture file of what it looked like when it was opened first, "" for none
 * @property int $revision
 * @property array{float, float, float}|null $origin what its places are counted from, metres; null when it was made long ago
 * @property int $next_object
 * @property int $next_layer
 * @property int $next_tag
 * @property int $next_folder
 * @property int $next_set
 * @property int $next_value
 * @property int $meshed how often objects have got other meshes
 * @property int $next_view
 * @property int $next_mesh
 * @property int $next_material
 * @property int $next_texture
 * @property int $next_pack
 * @property int $next_change
 * @property int $next_line
 * @property int $history_kept how many changes can be taken back at most, 0 for all
 * @property int $next_waiver
 * @property bool $sorts_what_comes whether what comes in is sorted by the project's list at once
 * @property Carbon $created_at
 * @property Carbon $updated_at
 */
final class Project extends Model
{
    /** How files of pictures end that no canvas has made. */
    public const DRAWN = 'drawn.png';

    protected $guarded = [];

    protected $casts = ['origin' => 'array', 'sorts_what_comes' => 'boolean'];

    /** The revision that {@see moveOn()} has left. */
    public int $revisionBefore = 0;

    /** @var array<int, string> by person, as they were read */
    private array $roles = [];

    /** Notes that something is another way: it still has to be saved. */
    public function moveOn(): void
    {
        $this->revisionBefore = $this->revision;
        $this->revision = Revision::after($this->revision);
    }

    public function getRouteKeyName(): string
    {
        return 'key';
    }

    /** @return BelongsToMany<User, $this> */
    public function people(): BelongsToMany
    {
        return $this->belongsToMany(User::class, 'project_people')->withPivot('role');
    }

    /** @return string "owner", "editor" or "viewer", "" for a stranger */
    public function role(User $person): string
    {
        return $this->roles[$person->id] ??= (string) $this->people()->whereKey($person->id)->value('project_people.role');
    }

    /** @return HasMany<Source, $this> */
    public function sources(): HasMany
    {
        return $this->hasMany(Source::class);
    }

    /** @return HasMany<Layer, $this> */
    public function layers(): HasMany
    {
        return $this->hasMany(Layer::class);
    }

    /** Whether no canvas has shown it yet: it has no picture, or one that was drawn without. */
    public function wantsPicture(): bool
    {
        return $this->picture === '' || str_ends_with($this->picture, '.'.self::DRAWN);
    }

    /**
     * @param int $after number of an object
     *
     * @return list<Copying> what was copied since, the first first; where no object is newer, nobody is asked
     */
    public function copyings(int $after): array
    {
        if ($after >= $this->next_object - 1) {
            return [];
        }
        $rows = DB::table('copyings')->where('project_id', $this->id)->where('last_no', '>', $after)->orderBy('first_no')->get()->all();

        return array_map(
            static fn (\stdClass $row): Copying => new Copying(
                (int) $row->first_no,
                (int) $row->last_no,
                Casts\Bytes::read($row->originals),
            ),
            array_values($rows),
        );
    }

    /** @return HasMany<View, $this> */
    public function views(): HasMany
    {
        return $this->hasMany(View::class)->orderBy('position')->orderBy('no');
    }

    /** @return HasMany<Change, $this> */
    public function changes(): HasMany
    {
        return $this->hasMany(Change::class);
    }

    /** @return HasMany<Mesh, $this> */
    public function meshes(): HasMany
    {
        return $this->hasMany(Mesh::class);
    }

    /** @return HasMany<Material, $this> */
    public function materials(): HasMany
    {
        return $this->hasMany(Material::class);
    }

    /** @return HasMany<Pack, $this> */
    public function packs(): HasMany
    {
        return $this->hasMany(Pack::class);
    }

    /** @return HasMany<Texture, $this> */
    public function textures(): HasMany
    {
        return $this->hasMany(Texture::class);
    }

    /** @return HasMany<ProjectObject, $this> */
    public function objects(): HasMany
    {
        return $this->hasMany(ProjectObject::class);
    }

    /** What the project is sorted by, as it is stored now. */
    public function organizers(): Organizers
    {
        return StoredOrganizers::of($this);
    }

    /** The folder of the project's files on the disk for kept files. */
    public function folder(): string
    {
        return 'projects/'.$this->key;
    }
}
