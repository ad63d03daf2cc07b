<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Models\Project;
use App\Scenes\SceneStore;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** After a file was taken in: works out what rules and sorting will need. Should it not run, that happens when it is first asked for. */
final class Ripen implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 600;

    public function __construct(public readonly int $projectId) {}

    public function handle(SceneStore $scenes): void
    {
        $project = Project::query()->find($this->projectId);
        if ($project !== null) {
            $scenes->ripen($project);
        }
    }
}
