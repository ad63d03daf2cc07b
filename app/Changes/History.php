<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\OutOfStep;
use App\Models\Casts\Bytes;
use App\Models\Change;
use App\Models\Project;
use App\Models\User;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use VineShelf\Scene\Scene;

/**
 * Carries changes out, takes them back and does them again: each in one transaction that holds the project, records what was done and
 * raises the revision. What a change decides on is read after the hold; a change that is taken back or done again is checked against what
 * is there now.
 */
final class History
{
    /** So many changes later, views are no longer offered to show what they showed before one. */
    private const OFFERED = 20;

    public function __construct(private readonly SceneStore $scenes) {}

    /**
     * @template T of Command
     *
     * @param callable(Bench): T $make given the project as it is once nobody else can change it
     *
     * @return T the command that was carried out
     */
    public function carryOut(Bench $bench, callable $make): Command
    {
        $project = $bench->project;
        $edits = null;
        $command = DB::transaction(function () use ($bench, $project, $make, &$edits): Command {
            self::hold($project);
            $bench->forget();
            $command = $make($bench);
            $edits = $command->edits();
            if ($edits->isEmpty()) {
                return $command;
            }
            $views = OldViews::before($bench, $edits->steps);
            $this->apply($project, $edits->steps, $views);
            $edits = new Edits([...$edits->steps, ...$views->steps ?? []]);
            $command->viewsDiffer += $views->differ ?? 0;
            $command->change = self::record($project, $bench->person, $command->name(), $edits, $views->asItWas ?? [])->no;

            return $command;
        });
        $this->follow($project, $command->change === null ? null : $edits);

        return $command;
    }

    /**
     * Writes steps, and what views that were there before are to keep because of them.
     *
     * @param list<Edit> $steps
     */
    private function apply(Project $project, array $steps, ?OldViews $views): void
    {
        foreach ($steps as $step) {
            $step->apply($project);
        }
        if ($views === null) {
            return;
        }
        $views->follow($project->organizers(), $this->changed($project, $steps));
        foreach ($views->steps as $step) {
            $step->apply($project);
        }
    }

    /**
     * Notes in a held project that something was changed, and raises its revision. What the person themself took back before can no longer
     * be done again.
     *
     * @param array<int, array{string, string}> $asItWas what views would keep to show what they showed before, as {@see OldViews} has it
     */
    public static function record(Project $project, User $person, string $name, Edits $edits, array $asItWas = []): Change
    {
        $project->changes()->where('undone', true)->where('undone_by', $person->id)->delete();
        $number = $project->next_change++;
        $change = Change::query()->create([
            'project_id' => $project->id,
            'no' => $number,
            'turn' => $number,
            'user_id' => $person->id,
            'name' => mb_strimwidth($name, 0, 250, '…'),
            'edits' => $edits->pack(),
            'as_it_was' => $asItWas === [] ? null : (string) gzdeflate(json_encode($asItWas, JSON_THROW_ON_ERROR), 3),
            'made_at' => now(),
        ]);
        // Only what was just done is offered to be seen otherwise.
        $project
            ->changes()
            ->whereNotNull('as_it_was')
            ->where('no', '<', $number - self::OFFERED)
            ->update(['as_it_was' => null]);
        $project->revision++;
        $project->save();

        return $change;
    }

    /** Takes back the last change, or says why not. @param int|null $number the change that is meant */
    public function undo(Bench $bench, ?int $number = null): Turned
    {
        return $this->turn($bench, $number, true);
    }

    /** Does again what was taken back, or says why not. @param int|null $number the change that is meant */
    public function redo(Bench $bench, ?int $number = null): Turned
    {
        return $this->turn($bench, $number, false);
    }

    /** @return array{Change|null, Change|null} what can be taken back, and what can be done again */
    public function next(Project $project, User $person): array
    {
        $changes = self::done($project)
            ->select(Change::HEAD)
            ->limit(1)
            ->unionAll(self::lastUndone($project, $person)->select(Change::HEAD)->limit(1))
            ->get();

        return [$changes->firstWhere('undone', false), $changes->firstWhere('undone', true)];
    }

    private function nextUndo(Project $project): ?Change
    {
        return self::done($project)->first(Change::HEAD);
    }

    /** Everybody else who wants to change the project waits here until the transaction ends. */
    public static function hold(Project $project): void
    {
        $project->setRawAttributes(Project::query()->lockForUpdate()->findOrFail($project->id)->getAttributes(), true);
    }

    private function turn(Bench $bench, ?int $number, bool $undo): Turned
    {
        $project = $bench->project;
        $edits = null;
        try {
            $turned = DB::transaction(function () use ($bench, $project, $number, $undo, &$edits): Turned {
                self::hold($project);
                $bench->forget();
                $change = $undo ? self::done($project)->with('user')->first() : $this->redoable($project, $bench->person, $number);
                if ($change === null || ($number !== null && $change->no !== $number)) {
                    return $this->overtaken($bench, $number, $undo, $change);
                }
                $edits = $this->turnBack($bench, $change, $undo);
                Change::query()
                    ->where('project_id', $project->id)
                    ->where('no', $change->no)
                    ->update(['undone' => $undo, 'undone_by' => $undo ? $bench->person->id : null, 'turn' => $project->next_change++]);
                $project->revision++;
                $project->save();

                return new Turned($change, ($undo ? 'Undone: ' : 'Redone: ')."$change->name.");
            });
        } catch (CannotTurn $cannot) {
            return $this->bar($bench, $cannot, $undo);
        }
        $this->follow($project, $edits);

        return $turned;
    }

    /** @throws CannotTurn */
    private function turnBack(Bench $bench, Change $change, bool $undo): Edits
    {
        $project = $bench->project;
        try {
            $edits = Edits::unpack($change->edits);
            $edits = $undo ? $edits->reversed() : $edits;
            $views = $undo ? null : OldViews::before($bench, $edits->steps, $change->turn);
            foreach ($edits->steps as $step) {
                $step->check($project);
                $step->apply($project);
            }

            return $undo ? $edits : $this->meetingViews($project, $change, $edits, $views);
        } catch (OutOfStep $reason) {
            throw new CannotTurn($change, $reason->getMessage());
        } catch (\JsonException | \InvalidArgumentException | \ErrorException $fault) {
            Log::error('A change cannot be read.', ['project' => $project->key, 'change' => $change->no, 'error' => $fault]);
            throw new CannotTurn($change, 'what it did cannot be read any more');
        }
    }

    /** What is done again meets views that were kept while it was away: they do not know what comes back. */
    private function meetingViews(Project $project, Change $change, Edits $edits, ?OldViews $views): Edits
    {
        $more = Strangers::steps($project, $edits->steps, $change->turn);
        foreach ($more as $step) {
            $step->apply($project);
        }
        if ($views !== null) {
            $views->follow($project->organizers(), $this->changed($project, $edits->steps));
            foreach ($views->steps as $step) {
                $step->apply($project);
            }
            $more = [...$more, ...$views->steps];
        }
        if ($more === []) {
            return $edits;
        }
        $edits = new Edits([...$edits->steps, ...$more]);
        Change::query()
            ->where('project_id', $project->id)
            ->where('no', $change->no)
            ->update(['edits' => Bytes::write($edits->pack())]);

        return $edits;
    }

    /** The change to do again: the one that is meant if it is the last that its taker took back, otherwise the person's own last one. */
    private function redoable(Project $project, User $person, ?int $number): ?Change
    {
        $meant = $number === null ? null : self::undone($project)->with('user')->where('no', $number)->first();
        $by = $meant === null ? self::lastUndone($project, $person)->first(Change::HEAD)?->undone_by : $meant->undone_by;

        return self::undone($project)->with('user')->where('undone_by', $by)->orderByDesc('turn')->first();
    }

    /** Says what happened instead to the change that was meant, and offers what can be done now. */
    private function overtaken(Bench $bench, ?int $number, bool $undo, ?Change $next): Turned
    {
        $meant =
            $number === null
                ? null
                : $bench->project
                    ->changes()
                    ->with(['user', 'undoneBy'])
                    ->where('no', $number)
                    ->first(Change::HEAD);
        $by = static fn (?User $person): string => $person === null
            ? 'somebody who has left'
            : ($person->id === $bench->person->id
                ? 'you'
                : $person->name);
        $sentence = match (true) {
            $number === null => $undo ? 'Nothing to undo.' : 'Nothing to redo.',
            $meant === null => 'That change is no longer in the history.',
            $undo && $meant->undone => "“{$meant->name}” was taken back already, by {$by($meant->undoneBy)}.",
            $undo && $meant->barred !== '' => "“{$meant->name}” cannot be taken back: $meant->barred.",
            ! $undo && ! $meant->undone => "“{$meant->name}” is done already.",
            $next === null => 'There is nothing to '.($undo ? 'undo' : 'redo').' any more.',
            $undo => "“{$next->name}” came after “{$meant->name}”, by {$by($next->user)}.",
            default => "“{$next->name}” was taken back after “{$meant->name}”; do that again first.",
        };

        return new Turned(null, $sentence, $number === null ? null : $next, $undo);
    }

    /** A change that cannot be taken back must not stand before those that came earlier; one that cannot be done again is let go. */
    private function bar(Bench $bench, CannotTurn $cannot, bool $undo): Turned
    {
        $change = $cannot->change;
        $sentence = "“{$change->name}” cannot be ".($undo ? 'taken back' : 'done again').": {$cannot->getMessage()}.";
        if ($undo) {
            Change::query()
                ->where('project_id', $bench->project->id)
                ->where('no', $change->no)
                ->update(['barred' => $cannot->getMessage()]);
        }

        return new Turned(null, $sentence, $undo ? $this->nextUndo($bench->project) : null, $undo);
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Change> changes that can be taken back, the last first */
    private static function done(Project $project): \Illuminate\Database\Eloquent\Builder
    {
        return $project->changes()->getQuery()->where('undone', false)->where('barred', '')->orderByDesc('turn');
    }

    /**
     * What the person took back, the last first; then what anybody took back.
     *
     * @return \Illuminate\Database\Eloquent\Builder<Change>
     */
    private static function lastUndone(Project $project, User $person): \Illuminate\Database\Eloquent\Builder
    {
        return self::undone($project)
            ->orderByRaw('undone_by IS NOT DISTINCT FROM ? DESC', [$person->id])
            ->orderByDesc('turn');
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Change> */
    private static function undone(Project $project): \Illuminate\Database\Eloquent\Builder
    {
        return $project->changes()->getQuery()->where('undone', true);
    }

    /** Brings the scene index along once the database has the change. Should that fail, the index is built anew when it is next needed. */
    private function follow(Project $project, ?Edits $edits): void
    {
        if ($edits === null) {
            return;
        }
        try {
            $before = (clone $project)->setAttribute('revision', $project->revision - 1);
            $changed = $this->changed($before, $edits->steps, $anew);
            if (! $anew) {
                $this->scenes->carry($project, $project->revision - 1, $changed);
            }
        } catch (\Throwable $fault) {
            // The change is made; whatever is wrong here, the index follows from the database.
            Log::warning('The index did not follow a change.', [
                'project' => $project->key,
                'revision' => $project->revision,
                'error' => $fault->getMessage(),
            ]);
        }
    }

    /**
     * The columns of the scene index that steps change.
     *
     * @param Project    $before the project as it was when the index was built
     * @param list<Edit> $steps
     * @param bool|null  $anew   whether the index has to be built anew, so that these columns are not all that change
     *
     * @param-out bool   $anew
     *
     * @return array<string, string>
     */
    private function changed(Project $before, array $steps, ?bool &$anew = null): array
    {
        $anew = false;
        $changed = [];
        foreach ($steps as $step) {
            $columns = $step->columns(new Scene(new ChangedColumns($changed, $this->scenes->columns($before))));
            $anew = $anew || $columns === null;
            $changed = ($columns ?? []) + $changed;
        }

        return $changed;
    }
}
