<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Models\Project;
use App\Scenes\SceneStore;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\DB;

/** After a file was taken in: works out what rules and sorting will need. Should it not run, that happens when it is first asked for. */
final class Ripen implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 600;

    public function __construct(public readonly int $projectId)
    {
        // Before the coarser versions, which are asked for after it; behind every file that somebody waits for.
        $this->onQueue(Coarsen::QUEUE);
    }

    public function handle(SceneStore $scenes): void
    {
        $project = Project::query()->find($this->projectId);
        if ($project !== null) {
            // Until the database has counted anew, it takes the project for a small one and reads all of it to find a few objects.
            DB::statement('ANALYZE objects');
            $scenes->ripen($project);
        }
    }
}
