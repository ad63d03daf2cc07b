<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Files\UnableToKeep;
use App\Lighten\Coarsening;
use App\Models\Project;
use App\Scenes\SceneStore;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;

/**
 * After a file was taken in: gives its meshes coarser versions, for some seconds at a time, behind everything else that waits. What one job
 * has not done the next one does; what is lost on the way the sweep gives back to the queue.
 */
final class Coarsen implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 900;

    /** Waits until nothing else does. */
    public const QUEUE = 'later';

    /** Seconds after which others have their turn. */
    private const SECONDS = 12;

    /** The key of the database's lock on a project's versions. */
    private const LOCK = 7202;

    public function __construct(public readonly int $projectId)
    {
        $this->onQueue(self::QUEUE);
    }

    public function handle(SceneStore $scenes): void
    {
        $project = Project::query()->find($this->projectId);
        if ($project === null || ! DB::scalar('SELECT pg_try_advisory_lock(?, ?)', [self::LOCK, $this->projectId])) {
            return;
        }
        try {
            $coarsening = new Coarsening($project, $scenes);
            $until = microtime(true) + self::SECONDS;
            while ($coarsening->next()) {
                if (microtime(true) > $until) {
                    self::dispatch($this->projectId);

                    return;
                }
            }
        } catch (UnableToKeep $full) {
            Log::warning('Coarser versions wait until there is room.', ['project' => $project->key, 'reason' => $full->getMessage()]);
        } finally {
            DB::select('SELECT pg_advisory_unlock(?, ?)', [self::LOCK, $this->projectId]);
        }
    }
}
