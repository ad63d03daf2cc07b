<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User as Authenticatable;

/**
 * A person who signs in.
 *
 * @property int $id
 * @property string $name
 * @property string $email
 * @property string $password
 * @property string $theme "auto", "light" or "dark"
 * @property string $hints names of those that were not closed or followed yet, with spaces between
 */
final class User extends Authenticatable
{
    /** Hints of a first visit: where to hide, where to pick, where to keep. */
    public const HINTS = ['hide', 'pick', 'keep'];

    protected $fillable = ['name', 'email', 'password', 'theme', 'hints'];

    protected $hidden = ['password', 'remember_token'];

    protected $attributes = ['theme' => 'auto', 'hints' => ''];

    protected $casts = ['password' => 'hashed'];

    /** @return BelongsToMany<Project, $this> */
    public function projects(): BelongsToMany
    {
        return $this->belongsToMany(Project::class, 'project_people')->withPivot('role');
    }

    /** @return HasMany<Import, $this> */
    public function imports(): HasMany
    {
        return $this->hasMany(Import::class);
    }

    /** @return list<string> hints that are still to be shown */
    public function hintsLeft(): array
    {
        return array_values(array_intersect(self::HINTS, explode(' ', $this->hints)));
    }

    /** Up to two letters that stand for the person. */
    public function initials(): string
    {
        $letters = array_map(
            static fn (string $word): string => mb_strtoupper(mb_substr($word, 0, 1)),
            preg_split('~\s+~u', trim($this->name)) ?: [],
        );

        return implode('', array_slice($letters, 0, 2));
    }
}
