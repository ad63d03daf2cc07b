<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Bench\Bench;
use App\Exporting\Ended;
use App\Models\Tidying;
use App\Models\User;
use App\Queue\Owned;
use App\Tidying\Report;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Log;

/** Looks through a project for what is untidy. A worker that dies leaves it to the next one, which starts over. */
final class Tidy implements Owned, ShouldQueue
{
    use Queueable;

    public int $tries = 2;

    public int $timeout = 900;

    public function __construct(public readonly int $tidyingId)
    {
        $this->onQueue('looks');
    }

    public function owner(): int
    {
        return (int) Tidying::query()->whereKey($this->tidyingId)->value('user_id');
    }

    public function handle(): void
    {
        $tidying = Tidying::query()->find($this->tidyingId);
        $person = $tidying === null ? null : User::query()->find($tidying->user_id);
        $project = $tidying?->project;
        if (
            $tidying === null ||
            $tidying->isOver() ||
            $person === null ||
            $project === null ||
            Gate::forUser($person)->denies('see', $project)
        ) {
            return;
        }
        $tidying->update(['state' => 'running', 'revision' => $project->revision]);
        $told = static function (int $percent) use ($tidying): void {
            $tidying->update(['percent' => $percent]);
            if (Tidying::query()->whereKey($tidying->id)->where('stop', true)->exists()) {
                throw new Ended;
            }
        };
        try {
            $report = Report::made(Bench::of($project, $person), $told);
            $tidying->update(['state' => 'done', 'percent' => 100, 'report' => $report->pack()]);
        } catch (Ended) {
            $tidying->update(['state' => 'stopped', 'says' => 'Stopped.']);
        } catch (\Throwable $fault) {
            Log::error('Looking through a project failed.', ['tidying' => $tidying->key, 'error' => $fault]);
            $says = "It could not be looked through because of a fault on our side. It is logged under $tidying->key.";
            $tidying->update(['state' => 'failed', 'says' => $says]);
        }
    }

    /** The queue has given it up. */
    public function failed(?\Throwable $error): void
    {
        Tidying::query()
            ->whereKey($this->tidyingId)
            ->whereNotIn('state', ['done', 'failed', 'stopped'])
            ->update(['state' => 'failed', 'says' => 'It could not be looked through: the worker gave it up.']);
    }
}
