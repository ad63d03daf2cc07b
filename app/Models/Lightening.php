<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\DoneInQueue;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/**
 * Rungs that somebody has asked to be proposed, so that a model fits a budget; and what was done with them.
 *
 * @property int $id
 * @property string $key
 * @property int $project_id
 * @property int $user_id
 * @property array<string, mixed> $wanted what was asked
 * @property string $state "waiting", "running", "done", "failed" or "stopped"
 * @property int $percent
 * @property bool $stop whether it is to end
 * @property string $says why it failed
 * @property array<string, mixed>|null $report of the proposal
 * @property array{layers: array<int, mixed>, objects: array<array-key, string>}|null $was what was set before, of what was changed
 * @property Carbon|null $applied_at
 * @property Carbon|null $given_back_at
 * @property Carbon $created_at
 */
final class Lightening extends Model
{
    use DoneInQueue;

    public const PICTURES = ['before', 'after', 'lost'];

    protected $guarded = [];

    protected $attributes = ['state' => 'waiting', 'percent' => 0, 'stop' => false, 'says' => ''];

    protected $casts = [
        'wanted' => 'array',
        'stop' => 'boolean',
        'report' => 'array',
        'was' => 'array',
        'proposed' => Casts\Bytes::class,
        'done' => Casts\Bytes::class,
        'applied_at' => 'datetime',
        'given_back_at' => 'datetime',
    ];

    public function isApplied(): bool
    {
        return $this->applied_at !== null && $this->given_back_at === null;
    }

    /** The rungs that are proposed. */
    public function settings(): Settings
    {
        return Settings::unpack(Casts\Bytes::read($this->getAttributes()['proposed'] ?? null));
    }

    /** The rungs that were set, packed as {@see Settings} are. */
    public function done(): string
    {
        return Casts\Bytes::read($this->getAttributes()['done'] ?? null);
    }

    /**
     * It is applied.
     *
     * @param array{layers: array<int, mixed>, objects: array<array-key, string>} $was what was set before, of what was changed
     */
    public function did(Settings $did, array $was): void
    {
        $this->update(['done' => $did->pack(), 'was' => $was, 'applied_at' => now(), 'given_back_at' => null]);
    }

    /** @param Bits $numbers of objects @return string as it is kept in {@see $was} */
    public static function packed(Bits $numbers): string
    {
        return base64_encode(Members::pack($numbers));
    }

    public static function unpacked(string $packed): Bits
    {
        return Members::unpack((string) base64_decode($packed, true));
    }

    /** Where a picture of it is kept. */
    public function file(string $picture): string
    {
        return "lightenings/$this->key-$picture.png";
    }
}
