<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Import;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * Tells the database how far an import is, a few times a second, and hears from it whether to stop. It does so beside the worker's own
 * connection, so that it is seen, and stopping is heard, also while a long transaction is open.
 */
final class Progress
{
    private const EVERY = 0.25;

    private float $told = 0.0;

    public function __construct(private readonly Import $import) {}

    /** @throws Stopped */
    public function tell(string $stage, int $done, int $total, int $objects = 0): void
    {
        $now = microtime(true);
        if ($now - $this->told < self::EVERY && $this->import->stage === $stage) {
            return;
        }
        $this->told = $now;
        $this->import->stage = $stage;
        $this->import->objects = max($objects, $this->import->objects);
        $this->row()->update([
            'stage' => $stage,
            'done' => $done,
            'total' => $total,
            'objects' => $this->import->objects,
            'updated_at' => now(),
        ]);
        $this->hear();
    }

    /** @throws Stopped when the person has asked to stop */
    public function hear(): void
    {
        if ($this->row()->where('stop', true)->exists()) {
            throw new Stopped;
        }
    }

    private function row(): Builder
    {
        $connection = config('shelf.aside');

        return DB::connection(is_string($connection) ? $connection : null)
            ->table('imports')
            ->where('id', $this->import->id);
    }
}
