<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Bench\Bench;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Lighten\ProjectPicture;
use App\Models\Project;
use App\Models\User;
use App\Queue\Owned;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Log;

/** Draws a project that nobody has opened yet, for the list of projects. What a canvas sends later takes its place. */
final class DrawProject implements Owned, ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 300;

    public function __construct(public readonly int $projectId, public readonly int $personId)
    {
        $this->onQueue('pictures');
    }

    public function owner(): int
    {
        return $this->personId;
    }

    public function handle(): void
    {
        $project = Project::query()->find($this->projectId);
        $person = User::query()->find($this->personId);
        if ($project === null || $person === null || $project->picture !== '') {
            return;
        }
        $bytes = ProjectPicture::of(Bench::of($project, $person));
        if ($bytes === '') {
            return;
        }
        $file = $project->folder().'/pictures/'.hash('xxh128', $bytes).'.'.Project::DRAWN;
        try {
            Kept::put($file, $bytes);
        } catch (UnableToKeep $full) {
            Log::warning('A project has no picture until it is opened.', ['project' => $project->key, 'reason' => $full->getMessage()]);

            return;
        }
        Project::query()
            ->whereKey($project->id)
            ->where('picture', '')
            ->update(['picture' => $file]);
    }
}
