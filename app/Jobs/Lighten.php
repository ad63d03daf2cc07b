<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Exporting\Ended;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Lighten\Asked;
use App\Lighten\Proposal;
use App\Lighten\Proposing;
use App\Models\Lightening;
use App\Models\User;
use App\Queue\Owned;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Log;

/** Works out which rungs fit a budget, from what is seen. A worker that dies leaves it to the next one, which starts over. */
final class Lighten implements Owned, ShouldQueue
{
    use Queueable;

    public int $tries = 2;

    public int $timeout = 900;

    public function __construct(public readonly int $lighteningId)
    {
        $this->onQueue('looks');
    }

    public function owner(): int
    {
        return (int) Lightening::query()->whereKey($this->lighteningId)->value('user_id');
    }

    public function handle(): void
    {
        $lightening = Lightening::query()->find($this->lighteningId);
        $person = $lightening === null ? null : User::query()->find($lightening->user_id);
        if ($lightening === null || $lightening->isOver() || $person === null) {
            return;
        }
        try {
            $this->propose($lightening, $person);
        } catch (Ended) {
            $lightening->update(['state' => 'stopped', 'says' => 'Stopped.']);
        } catch (Refused | UnableToKeep $reason) {
            $lightening->update(['state' => 'failed', 'says' => $reason->getMessage()]);
        } catch (\Throwable $fault) {
            Log::error('A proposal failed.', ['lightening' => $lightening->key, 'error' => $fault]);
            $says = "It could not be worked out because of a fault on our side. It is logged under $lightening->key.";
            $lightening->update(['state' => 'failed', 'says' => $says]);
        }
    }

    /** The queue has given it up. */
    public function failed(?\Throwable $error): void
    {
        Lightening::query()
            ->whereKey($this->lighteningId)
            ->whereNotIn('state', ['done', 'failed', 'stopped'])
            ->update(['state' => 'failed', 'says' => 'It could not be worked out: the worker gave it up.']);
    }

    /** Keeps what was worked out: the pictures first, so that whatever is said to be there is there. @throws UnableToKeep */
    public static function keep(Lightening $lightening, Proposal $proposal): void
    {
        foreach ($proposal->pictures as $picture => $bytes) {
            Kept::put($lightening->file($picture), $bytes);
        }
        $lightening->update([
            'state' => 'done',
            'percent' => 100,
            'report' => $proposal->report + ['pictures' => $proposal->pictures !== []],
            'proposed' => $proposal->settings->pack(),
        ]);
    }

    /**
     * @throws Ended
     * @throws Refused
     * @throws UnableToKeep
     */
    private function propose(Lightening $lightening, User $person): void
    {
        $project = $lightening->project ?? throw new Refused('The project is gone.');
        if (Gate::forUser($person)->denies('see', $project)) {
            throw new Refused('You may no longer see the project.');
        }
        $lightening->update(['state' => 'running']);
        $told = static function (int $percent) use ($lightening): void {
            $lightening->update(['percent' => $percent]);
            if (Lightening::query()->whereKey($lightening->id)->where('stop', true)->exists()) {
                throw new Ended;
            }
        };
        self::keep($lightening, (new Proposing(Bench::of($project, $person), Asked::of($lightening), $told))->whole());
    }
}
