<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\Places;
use App\Changes\Edits\SourceEdit;
use App\Models\Change;
use App\Models\Project;
use App\Models\User;
use App\Scenes\SceneStore;
use App\Scenes\Unfinished;
use Illuminate\Support\Facades\DB;
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

    /** How often, in changes, what need not be kept is let go of. */
    private const THINNED = 16;

    /** How often a change is tried that the database gave up because of others. */
    public const ATTEMPTS = 4;

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
        $command = $this->holding($bench, function () use ($bench, $make): Command {
            $command = $make($bench);
            $edits = $command->edits();
            if (! $edits->isEmpty()) {
                $this->write($bench, $command, $edits);
                $command->atLast($bench->project);
            }

            return $command;
        });
        $bench->refresh();

        return $command;
    }

    /**
     * Writes to a project that nobody else changes meanwhile, and that is read as it is now: all of it or nothing. Where the database gives
     * up because of others, it is done once more.
     *
     * @template T
     *
     * @param \Closure(): T $write
     *
     * @return T
     */
    public function holding(Bench $bench, \Closure $write): mixed
    {
        return DB::transaction(function () use ($bench, $write): mixed {
            Hold::on($bench->project, $bench->person);
            $bench->forget();
            // The index is to be there before anything is written.
            $this->scenes->manifest($bench->project);

            return Unfinished::during($write);
        }, self::ATTEMPTS);
    }

    private function write(Bench $bench, Command $command, Edits $edits): void
    {
        $views = OldViews::before($bench, $edits->steps);
        $this->apply($bench->project, $edits->steps, $views);
        $edits = new Edits([...$edits->steps, ...$views->steps ?? []]);
        $command->viewsDiffer += $views->differ ?? 0;
        $command->viewsCanStay = ($views->asItWas ?? []) !== [];
        $command->change = self::record($bench->project, $bench->person, $command->name(), $edits, $views->asItWas ?? [])->no;
        $this->follow($bench->project, $edits);
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
        $cycle = Places::cycleBy($project, $steps);
        if ($cycle !== '') {
            throw new Refused("A set would lead back to itself: $cycle.", 'name');
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
     * @param array<int, array<string, array{string, string}>> $asItWas what views would keep to show what they showed before, as
     *     {@see OldViews} has it
     */
    public static function record(Project $project, User $person, string $name, Edits $edits, array $asItWas = []): Change
    {
        $project
            ->changes()
            ->where('undone', true)
            ->where('undone_by', $person->id)
            ->update(['let_go' => true]);
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
            'objects' => self::counted($edits),
        ]);
        // Only what was just done is offered to be seen otherwise.
        $project
            ->changes()
            ->whereNotNull('as_it_was')
            ->where('no', '<', $number - self::OFFERED)
            ->update(['as_it_was' => null]);
        $project->moveOn();
        $project->save();
        if ($number % self::THINNED === 0) {
            (new Log($project))->thin();
        }

        return $change;
    }

    /** Takes back the person's own last change, or the one that is meant, or says why not. @param int|null $number the one that is meant */
    public function undo(Bench $bench, ?int $number = null): Turned
    {
        return (new Turning($this, $this->scenes))->turn($bench, $number, true);
    }

    /** Does again what the person took back last, or what is meant, or says why not. @param int|null $number the change that is meant */
    public function redo(Bench $bench, ?int $number = null): Turned
    {
        return (new Turning($this, $this->scenes))->turn($bench, $number, false);
    }

    /**
     * Takes back what the person did since a change, and that change itself: all of it, or nothing.
     *
     * @param int $number of the person's own change
     */
    public function backTo(Bench $bench, int $number): Turned
    {
        return (new Turning($this, $this->scenes))->backTo($bench, $number);
    }

    /** @return array{Change|null, Change|null} what the person can take back, and do again */
    public function next(Project $project, User $person): array
    {
        $changes = self::done($project)
            ->where('user_id', $person->id)
            ->select(Change::HEAD)
            ->limit(1)
            ->unionAll(self::undone($project)->where('undone_by', $person->id)->orderByDesc('turn')->select(Change::HEAD)->limit(1))
            ->get();

        return [$changes->firstWhere('undone', false), $changes->firstWhere('undone', true)];
    }

    private static function counted(Edits $edits): int
    {
        $came = 0;
        foreach ($edits->steps as $step) {
            $came += $step instanceof SourceEdit ? $step->objects : 0;
        }

        return $came + $edits->objects()->count();
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Change> changes that can be taken back, the last first */
    public static function done(Project $project): \Illuminate\Database\Eloquent\Builder
    {
        return $project->changes()->getQuery()->where('undone', false)->where('thinned', false)->where('barred', '')->orderByDesc('turn');
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Change> */
    public static function undone(Project $project): \Illuminate\Database\Eloquent\Builder
    {
        return $project->changes()->getQuery()->where('undone', true)->where('let_go', false)->where('thinned', false);
    }

    /** Brings the scene index along with what was just written. */
    public function follow(Project $project, Edits $edits): void
    {
        $before = (clone $project)->setAttribute('revision', $project->revisionBefore);
        $this->scenes->carry($project, function () use ($before, $edits): ?array {
            $changed = $this->changed($before, $edits->steps, $anew);

            return $anew ? null : $changed;
        });
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
    public function changed(Project $before, array $steps, ?bool &$anew = null): array
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
