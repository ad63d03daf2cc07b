<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Import;

/** Tells the database how far an import is, a few times a second, and hears from it whether to stop. */
final class Progress
{
    private float $told = 0.0;

    public function __construct(private readonly Import $import) {}

    /** @throws Stopped */
    public function tell(string $stage, int $done, int $total, int $objects = 0): void
    {
        $now = microtime(true);
        if ($now - $this->told < 0.25 && $this->import->stage === $stage) {
            return;
        }
        $this->told = $now;
        $this->import->stage = $stage;
        $this->import->done = $done;
        $this->import->total = $total;
        $this->import->objects = max($objects, $this->import->objects);
        $this->import->updated_at = now();
        Import::query()->whereKey($this->import->id)->update([
            'stage' => $stage, 'done' => $done, 'total' => $total, 'objects' => $this->import->objects, 'updated_at' => now(),
        ]);
        if (Import::query()->whereKey($this->import->id)->where('stop', true)->exists()) {
            throw new Stopped;
        }
    }
}
