<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\OutOfStep;
use App\Changes\Edits\Places;
use App\Changes\Edits\RowEdit;
use App\Models\Casts\Bytes;
use App\Models\Change;
use App\Models\Project;
use App\Scenes\SceneStore;
use App\Scenes\Unfinished;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log as Diary;

/**
 * Takes changes back and does them again, each person their own, in any order: whatever a change writes over has to be as it left it, and
 * nothing may stand on what it would remove.
 */
final readonly class Turning
{
    public function __construct(private History $history, private SceneStore $scenes) {}

    /**
     * Takes back what the person did since a change, and that change itself: all of it, or nothing. Where that takes long, the newest are
     * taken back and it is said how many are left.
     *
     * @param int $number of the person's own change
     */
    public function backTo(Bench $bench, int $number): Turned
    {
        $project = $bench->project;
        try {
            $turned = $this->history->holding($bench, function () use ($bench, $project, $number): Turned {
                $times = 0;
                /** @var array<string, string>|null $all packed columns that differ */
                $all = [];
                $turn = History::done($project)->where('user_id', $bench->person->id)->where('no', $number)->value('turn');
                if (! is_int($turn)) {
                    return NotTurned::overtaken($bench, $number, true, null);
                }
                $meant = History::done($project)->where('user_id', $bench->person->id)->where('turn', '>=', $turn)->pluck('no');
                $until = microtime(true) + config()->integer('shelf.back_for');
                foreach ($meant as $no) {
                    // Others wait meanwhile: what would take too long is left for the next time.
                    if ($times > 0 && microtime(true) > $until) {
                        break;
                    }
                    $change = History::done($project)->with('user')->where('no', $no)->firstOrFail();
                    $steps = $this->turnOne($bench, $change, true)->steps;
                    $times++;
                    // The next one is to find the project as this one leaves it.
                    $changed = $this->history->changed($project, $steps, $anew);
                    Unfinished::goOn($project, $anew ? null : $changed);
                    $all = $anew || $all === null ? null : $changed + $all;
                    $bench->forget();
                }
                $project->moveOn();
                $project->save();
                $this->scenes->carry($project, static fn (): ?array => $all);

                $sentence = 'Undone: '.($times === 1 ? '1 change.' : number_format($times).' changes.');
                $left = count($meant) - $times;
                $sentence .= $left === 0 ? '' : ' That took long: '.number_format($left).' more to go. Go back once more.';

                return new Turned($change ?? null, $sentence);
            });
        } catch (CannotTurn $cannot) {
            $turned = NotTurned::refused($bench, $cannot, true);

            return new Turned(null, "$turned->sentence Nothing was taken back.");
        }
        $bench->refresh();

        return $turned;
    }

    public function turn(Bench $bench, ?int $number, bool $undo): Turned
    {
        $project = $bench->project;
        try {
            $turned = $this->history->holding($bench, function () use ($bench, $project, $number, $undo): Turned {
                $change = $undo ? $this->undoable($bench, $number) : $this->redoable($bench, $number);
                if ($change instanceof Turned) {
                    return $change;
                }
                $edits = $this->turnOne($bench, $change, $undo);
                $project->moveOn();
                $project->save();
                $this->history->follow($project, $edits);

                return new Turned($change, ($undo ? 'Undone: ' : 'Redone: ')."$change->name.");
            });
        } catch (CannotTurn $cannot) {
            return NotTurned::refused($bench, $cannot, $undo);
        }
        $bench->refresh();

        return $turned;
    }

    /** @throws CannotTurn */
    private function turnOne(Bench $bench, Change $change, bool $undo): Edits
    {
        $edits = $this->turnBack($bench, $change, $undo);
        $turn = $bench->project->next_change++;
        $noted = json_encode([[$turn, (int) $undo, now()->getTimestamp()]], JSON_THROW_ON_ERROR);
        Change::query()
            ->where('project_id', $bench->project->id)
            ->where('no', $change->no)
            ->update([
                'undone' => $undo,
                'undone_by' => $undo ? $bench->person->id : null,
                'turn' => $turn,
                'barred' => '',
                'turns' => DB::raw("turns || '$noted'::jsonb"),
                'turned_at' => now(),
            ]);
        // What stood on older ones may be gone.
        Change::query()
            ->where('project_id', $bench->project->id)
            ->where('barred', '<>', '')
            ->where('turn', '<', $change->turn)
            ->where('thinned', false)
            ->update(['barred' => '']);

        return $edits;
    }

    /** The change to take back: the one that is meant, if it is the person's to take back; otherwise their own last one. */
    private function undoable(Bench $bench, ?int $number): Change|Turned
    {
        $project = $bench->project;
        if ($number === null) {
            return History::done($project)->where('user_id', $bench->person->id)->with('user')->first() ??
                NotTurned::overtaken($bench, null, true, null);
        }
        $meant = $project->changes()->with('user')->where('no', $number)->where('undone', false)->where('thinned', false)->first();
        if ($meant === null) {
            return NotTurned::overtaken(
                $bench,
                $number,
                true,
                History::done($project)->where('user_id', $bench->person->id)->first(Change::HEAD),
            );
        }
        // Whoever owns the project can clear up after others.
        if (! in_array($meant->user_id, [null, $bench->person->id], true) && $project->role($bench->person) !== 'owner') {
            $by = $meant->user->name ?? '';

            return new Turned(null, "“{$meant->name}” is by $by: only they, and who owns the project, can take it back.");
        }

        return $meant;
    }

    /** The change to do again: the one that is meant, if whoever asks took it back; otherwise what they took back last. */
    private function redoable(Bench $bench, ?int $number): Change|Turned
    {
        $project = $bench->project;
        $own = History::undone($project)->where('undone_by', $bench->person->id)->orderByDesc('turn');
        if ($number === null) {
            return $own->with('user')->first() ?? NotTurned::overtaken($bench, null, false, null);
        }
        $meant = History::undone($project)
            ->with(['user', 'undoneBy'])
            ->where('no', $number)
            ->first();
        if ($meant === null) {
            return NotTurned::overtaken($bench, $number, false, $own->first(Change::HEAD));
        }
        $isOwn = in_array($meant->undone_by, [null, $bench->person->id], true) || $meant->user_id === $bench->person->id;
        if (! $isOwn && $project->role($bench->person) !== 'owner') {
            return new Turned(null, "“{$meant->name}” was taken back by {$meant->undoneBy?->name}: only they can do it again.");
        }

        return $meant;
    }

    /**
     * Runs a change reversed, or again. What views were given because of it is taken back as it was recorded, unless somebody has changed
     * these views since: then it is worked out anew.
     *
     * @throws CannotTurn
     */
    private function turnBack(Bench $bench, Change $change, bool $undo): Edits
    {
        $project = $bench->project;
        try {
            $did = Edits::unpack($change->edits);
            $later = new Later($project, $change);
            if ($undo) {
                $later->checkUntouched($did->made());
            }
            $edits = $undo ? $did->reversed() : $did;
            [$own, $following] = $edits->apart();
            [$recorded, $anew] = FollowingViews::apart($project, $following, $undo ? $later : null);
            $views = match (true) {
                ! $undo => OldViews::before($bench, $own, $anew === [] ? $change->turn : 0),
                $anew === [] => null,
                default => OldViews::before($bench, $own, only: array_keys($anew)),
            };
            $steps = ! $undo && $anew !== [] ? $own : [...$own, ...array_merge(...$recorded)];
            $this->write($project, $steps);
            if ($undo) {
                $later->checkNothingStands(new Edits($did->apart()[0]));
            }
            if ($undo && $anew === []) {
                return $edits;
            }
            $turned = $this->meetingViews($project, $change, new Edits($steps), $views, $undo);
            if ($undo) {
                (new Rebasing($project, $change))->of(array_merge(...$anew), $views->steps ?? []);
            }

            return $turned;
        } catch (OutOfStep $reason) {
            throw new CannotTurn($change, $reason->getMessage(), $reason->by);
        } catch (\JsonException | \InvalidArgumentException | \ErrorException $fault) {
            Diary::error('A change cannot be read.', ['project' => $project->key, 'change' => $change->no, 'error' => $fault]);
            throw new CannotTurn($change, 'what it did cannot be read any more');
        }
    }

    /** What is done again meets views that were kept while it was away: they do not know what comes back. */
    private function meetingViews(Project $project, Change $change, Edits $edits, ?OldViews $views, bool $undo): Edits
    {
        $more = $undo ? [] : Strangers::steps($project, $edits->steps, $change->turn);
        foreach ($more as $step) {
            $step->apply($project);
        }
        if ($views !== null) {
            $views->follow($project->organizers(), $this->history->changed($project, $edits->steps));
            foreach ($views->steps as $step) {
                $step->apply($project);
            }
            $more = [...$more, ...$views->steps];
        }
        $edits = new Edits([...$edits->steps, ...$more]);
        $kept = $undo ? $edits->reversed() : $edits;
        Change::query()
            ->where('project_id', $project->id)
            ->where('no', $change->no)
            ->update(['edits' => Bytes::write($kept->pack())]);

        return $edits;
    }

    /**
     * @param list<Edit> $steps
     *
     * @throws OutOfStep
     */
    private function write(Project $project, array $steps): void
    {
        foreach ($steps as $step) {
            $step->check($project);
            $step->apply($project);
        }
        foreach ($steps as $step) {
            $step instanceof RowEdit && $step->checkName($project);
        }
        $cycle = Places::cycleBy($project, $steps);
        if ($cycle !== '') {
            throw OutOfStep::taken("a way from a set back to itself, $cycle,");
        }
    }
}
