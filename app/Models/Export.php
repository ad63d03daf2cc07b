<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\DoneInQueue;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * Parts of a project on their way out, as one person asked for them.
 *
 * @property int $id
 * @property string $key
 * @property int $project_id
 * @property int $user_id
 * @property array{of: string, rows: string, count?: int, held?: int, side: string, view: int, quantized: bool, compressed: bool} $asked
 *     count: objects that were asked for; held: those that they hold besides; rows: deflated bits by
 *     object number, in base64
 * @property string $file_name
 * @property string $state "waiting", "running", "done", "failed" or "stopped"
 * @property int $done objects that were looked at
 * @property int $total
 * @property bool $stop whether it is to end
 * @property string $says what came of it
 * @property int $bytes
 * @property Carbon $created_at
 */
final class Export extends Model
{
    use DoneInQueue;

    protected $guarded = [];

    protected $attributes = ['state' => 'waiting', 'done' => 0, 'total' => 0, 'stop' => false, 'says' => '', 'bytes' => 0];

    protected $casts = ['asked' => 'array', 'stop' => 'boolean'];

    public function percent(): int
    {
        return $this->total === 0 ? 0 : (int) floor((100 * $this->done) / $this->total);
    }

    /** Where the file is kept. */
    public function file(): string
    {
        return "exports/$this->key.glb";
    }
}
