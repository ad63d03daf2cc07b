<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Exporting\Ended;
use App\Exporting\Exporting;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Models\Export;
use App\Models\User;
use App\Queue\Owned;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Log;
use VineShelf\Scene\Members;

/** Writes what somebody asked for as a file, and says how far it is. A worker that dies leaves it to the next one, which starts over. */
final class ExportParts implements Owned, ShouldQueue
{
    use Queueable;

    public int $tries = 2;

    public int $timeout = 1800;

    /** Seconds between two words about how far it is. */
    private const EVERY = 0.3;

    public function __construct(public readonly int $exportId)
    {
        $this->onQueue('exports');
    }

    public function owner(): int
    {
        return (int) Export::query()->whereKey($this->exportId)->value('user_id');
    }

    public function handle(): void
    {
        $export = Export::query()->find($this->exportId);
        $person = $export === null ? null : User::query()->find($export->user_id);
        if ($export === null || $export->isOver() || $person === null) {
            return;
        }
        try {
            $this->write($export, $person);
        } catch (Ended) {
            $export->update(['state' => 'stopped', 'says' => 'Stopped.']);
        } catch (Refused | UnableToKeep $reason) {
            $export->update(['state' => 'failed', 'says' => $reason->getMessage()]);
        } catch (\Throwable $fault) {
            Log::error('An export failed.', ['export' => $export->key, 'error' => $fault]);
            $says = "The file could not be written because of a fault on our side. It is logged under $export->key.";
            $export->update(['state' => 'failed', 'says' => $says]);
        }
    }

    /** The queue has given it up. */
    public function failed(?\Throwable $error): void
    {
        Export::query()
            ->whereKey($this->exportId)
            ->whereNotIn('state', ['done', 'failed', 'stopped'])
            ->update(['state' => 'failed', 'says' => 'The file could not be written: the worker gave it up.']);
    }

    /**
     * @throws Ended
     * @throws Refused
     * @throws UnableToKeep
     */
    private function write(Export $export, User $person): void
    {
        $project = $export->project ?? throw new Refused('The project is gone.');
        if (Gate::forUser($person)->denies('see', $project)) {
            throw new Refused('You may no longer see the project.');
        }
        $bench = Bench::of($project, $person);
        $view = $project->views()->where('no', $export->asked['view'])->first();
        $inEffect = $export->asked['side'] === 'output' ? $bench->outputs()->of($view)->inEffect : $bench->asIn($view);
        $rows = $bench->scene()->rowBits(Members::unpack((string) base64_decode($export->asked['rows'], true)));
        $told = 0.0;
        $exporting = new Exporting($bench, $inEffect->rungs(), $export->asked['quantized'], $export->asked['compressed'], static function (
            int $done,
            int $total,
        ) use ($export, &$told): void {
            if (microtime(true) - $told > self::EVERY) {
                $told = microtime(true);
                $export->update(['state' => 'running', 'done' => $done, 'total' => $total]);
                if (Export::query()->whereKey($export->id)->where('stop', true)->exists()) {
                    throw new Ended;
                }
            }
        });
        $path = (string) tempnam(sys_get_temp_dir(), 'shelf-export');
        try {
            $done = $exporting->write($rows, $path);
            Kept::take($export->file(), $path);
        } finally {
            @unlink($path);
        }
        $says = $done->says($export->asked['count'] ?? 0, $export->asked['held'] ?? 0);
        $export->update(['state' => 'done', 'says' => $says, 'bytes' => $done->bytes, 'done' => $export->total]);
    }
}
