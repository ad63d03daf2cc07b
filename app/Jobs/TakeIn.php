<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Files\UnableToKeep;
use App\Intake\Preparing;
use App\Intake\Progress;
use App\Intake\Staging;
use App\Intake\Stopped;
use App\Intake\Storing;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Project;
use App\Queue\Owned;
use App\Scenes\SceneStore;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Database\QueryException;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use VineShelf\Formats\UnreadableFile;

/**
 * Takes one uploaded file in, in three stages, each with its own rule for failure:
 *
 * 1. preparing writes beside everything; what goes wrong there ends the import, and nothing of it stays;
 * 2. storing is one transaction; it happened or it did not, and when nobody can tell, the import's row says it to the next try;
 * 3. afterwards, the file is in, whatever happens: an index that is not built is built when it is first asked for.
 *
 * A worker that dies leaves the import to the next one, which starts over; a file that has ended several workers is given up.
 */
final class TakeIn implements Owned, ShouldQueue
{
    use Queueable;

    /** Tries are counted by the import: one that finds it in another worker's hands is none. */
    public int $tries = 0;

    public int $timeout = 3500;

    private const TRIES = 4;

    /** Seconds until an import that another worker holds is looked at again. */
    private const LATER = 15;

    /** The key of the database's lock on an import. */
    private const LOCK = 7201;

    public function __construct(public readonly int $importId) {}

    public function owner(): int
    {
        return (int) Import::query()->whereKey($this->importId)->value('user_id');
    }

    public function handle(SceneStore $scenes): void
    {
        // Only one worker at a time may hold an import, whatever the queue believes.
        if (! DB::scalar('SELECT pg_try_advisory_lock(?, ?)', [self::LOCK, $this->importId])) {
            $this->job === null ? self::dispatch($this->importId)->delay(self::LATER) : $this->release(self::LATER);

            return;
        }
        try {
            $import = Import::query()->find($this->importId);
            if ($import !== null && ! $import->isOver()) {
                $this->takeIn($import, $scenes);
            }
        } finally {
            self::unlock($this->importId);
        }
    }

    /** The queue has given the job up. */
    public function failed(?\Throwable $error): void
    {
        $import = Import::query()->find($this->importId);
        if ($import !== null && ! $import->isOver()) {
            $this->end(
                $import,
                ImportState::Failed,
                'The file could not be taken in: the worker gave it up. It is logged under '.$import->key.'.',
            );
        }
        Log::error('An import was given up.', ['import' => $import?->key, 'error' => $error]);
    }

    private function takeIn(Import $import, SceneStore $scenes): void
    {
        if ($import->attempts >= self::TRIES) {
            $this->end(
                $import,
                ImportState::Failed,
                'The file could not be taken in: '.
                    self::TRIES.
                    ' workers ended while they worked on it. It may be too large for this server.',
            );

            return;
        }
        $import->update(['state' => ImportState::Running, 'attempts' => $import->attempts + 1]);
        $staging = new Staging($import);
        $progress = new Progress($import);
        try {
            $prepared = (new Preparing($import, $staging, $progress))->prepare();
            $staging->settle();
            $storing = new Storing($import, $prepared, $progress);
            unset($prepared);
            $project = $storing->store(static function (Project $project, int $source) use ($import, $storing, $scenes): void {
                $project->sorts_what_comes && SortWhatCame::dispatch($project->id, $source, $import->user_id);
                // Whoever works in the project need not build the index when the file is suddenly there.
                $scenes->replace($project, static fn (): ?array => $storing->index($project));
            });
        } catch (Stopped) {
            $this->end($import, ImportState::Stopped, '');

            return;
        } catch (UnreadableFile | UnableToKeep $error) {
            $this->end($import, ImportState::Failed, $error->getMessage());

            return;
        } catch (QueryException | \PDOException $error) {
            // Whether it is in cannot be told while the database is away: the import stays as it is, and the next try finds out.
            Log::warning('The database was lost during an import.', ['import' => $import->key, 'error' => $error->getMessage()]);
            if (! self::isConnected()) {
                throw $error;
            }
            $this->endUnlessDone($import, $error);

            return;
        } catch (\Throwable $error) {
            $this->endUnlessDone($import, $error);

            return;
        }
        // From here on the file is in.
        try {
            $staging->letGo();
            Ripen::dispatch($project->id);
            DrawProject::dispatch($project->id, $import->user_id);
            Coarsen::dispatch($project->id);
        } catch (\Throwable $error) {
            Log::warning('What follows an import was cut short; it is made up for when it is asked for.', [
                'import' => $import->key,
                'error' => $error,
            ]);
        }
    }

    private function endUnlessDone(Import $import, \Throwable $error): void
    {
        Log::error('An import failed.', ['import' => $import->key, 'error' => $error]);
        if ($import->refresh()->state !== ImportState::Done) {
            $this->end(
                $import,
                ImportState::Failed,
                'The file could not be taken in because of a fault on our side. It is logged under '.$import->key.'.',
            );
        }
    }

    /** First it is written down how the import ended, then its files go: should that be cut short, the nightly sweep finds them. */
    private function end(Import $import, ImportState $state, string $error): void
    {
        Import::query()
            ->whereKey($import->id)
            ->update(['state' => $state->value, 'error' => $error, 'stage' => '', 'updated_at' => now()]);
        (new Staging($import))->abandon();
    }

    private static function isConnected(): bool
    {
        try {
            return DB::scalar('SELECT 1') === 1;
        } catch (\Throwable) {
            return false;
        }
    }

    /** A connection that is lost has let go of the lock by itself. */
    private static function unlock(int $import): void
    {
        try {
            DB::select('SELECT pg_advisory_unlock(?, ?)', [self::LOCK, $import]);
        } catch (\Throwable) {
        }
    }
}
