<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Bench\Bench;
use App\Changes\History;
use App\Changes\SortByLines;
use App\Models\Project;
use App\Models\User;
use App\Queue\Owned;
use App\SortingRules\DryRun;
use App\SortingRules\StoredLine;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/**
 * What came in a file goes where the project's sorting rules say: a change of its own, that can be taken back without the file. It is
 * handed in together with the file, in one transaction; run again, it finds everything sorted.
 */
final class SortWhatCame implements Owned, ShouldQueue
{
    use Queueable;

    public int $tries = 5;

    public int $timeout = 600;

    public function __construct(public readonly int $projectId, public readonly int $sourceId, public readonly int $personId) {}

    public function owner(): int
    {
        return $this->personId;
    }

    public function handle(History $history): void
    {
        $project = Project::query()->find($this->projectId);
        $person = User::query()->find($this->personId);
        if ($project === null || $person === null || $project->role($person) === '') {
            return;
        }
        $history->carryOut(Bench::of($project, $person), function (Bench $held): SortByLines {
            $name = $held->project->sources()->whereKey($this->sourceId)->value('name');
            $came = $held
                ->facts()
                ->sources()
                ->rowsOf([$this->sourceId => true]);

            return new SortByLines($held, new DryRun($held, StoredLine::all($held->project), $came), [], is_string($name) ? $name : '');
        });
    }
}
