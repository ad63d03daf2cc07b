<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Gate;

/**
 * A link by which people without an account see views of a project, and nothing else of it.
 *
 * @property int $id
 * @property int $project_id
 * @property int $user_id
 * @property string $hash of the token
 * @property string $token that the address ends with; encrypted in the database
 * @property string $name
 * @property string $views keys of folders and views with commas between, or "all"
 * @property bool $as_pictures whether each view shows what pictures of it show
 * @property bool $may_pick whether objects can be picked, and say their names
 * @property bool $may_comment
 * @property string $password hash, empty for none
 * @property Carbon $ends_at
 * @property Carbon|null $revoked_at
 * @property int $visits
 * @property Carbon|null $visited_at
 * @property Carbon $made_at
 * @property-read Project $project
 * @property-read User $maker
 */
final class ShareLink extends Model
{
    /** Characters of a token: 190 bits. */
    public const TOKEN = 32;

    public $timestamps = false;

    protected $guarded = [];

    protected $hidden = ['token', 'hash', 'password'];

    protected $attributes = ['password' => '', 'visits' => 0];

    protected $casts = [
        'token' => 'encrypted',
        'as_pictures' => 'boolean',
        'may_pick' => 'boolean',
        'may_comment' => 'boolean',
        'ends_at' => 'datetime',
        'revoked_at' => 'datetime',
        'visited_at' => 'datetime',
        'made_at' => 'datetime',
    ];

    public static function withToken(string $token): ?self
    {
        return self::query()->where('hash', self::hashOf($token))->first();
    }

    public static function hashOf(string $token): string
    {
        return hash('sha256', $token);
    }

    /** @return BelongsTo<Project, $this> */
    public function project(): BelongsTo
    {
        return $this->belongsTo(Project::class);
    }

    /** @return BelongsTo<User, $this> */
    public function maker(): BelongsTo
    {
        return $this->belongsTo(User::class, 'user_id');
    }

    /** Whether it still leads anywhere. */
    public function isOpen(): bool
    {
        return $this->lasts() && Gate::forUser($this->maker)->allows('see', $this->project);
    }

    private function lasts(): bool
    {
        return $this->revoked_at === null && $this->ends_at->isFuture();
    }

    /**
     * Which of the links of one project still lead anywhere; whoever made several is asked about once.
     *
     * @param iterable<self> $links
     *
     * @return array<int, bool> by id
     */
    public static function open(iterable $links): array
    {
        $open = $sees = [];
        foreach ($links as $link) {
            $sees[$link->user_id] ??= Gate::forUser($link->maker)->allows('see', $link->project);
            $open[$link->id] = $sees[$link->user_id] && $link->lasts();
        }

        return $open;
    }

    /** One more visit; counted where it is written, whoever else visits at the same moment. */
    public function visited(): void
    {
        self::query()
            ->whereKey($this->id)
            ->increment('visits', 1, ['visited_at' => now()]);
    }
}
