<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Models\Change;
use App\Models\Project;
use App\Models\User;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\DB;

/** Carries changes out, takes them back and does them again: each in one transaction that also records it and raises the revision. */
final class History
{
    public function __construct(private readonly SceneStore $scenes) {}

    /**
     * @template T of Command
     *
     * @param callable(Project): T $make given the project as it is inside the transaction
     *
     * @return T the command that was carried out
     */
    public function carryOut(Project $project, User $person, callable $make): Command
    {
        $command = DB::transaction(function () use ($project, $person, $make): Command {
            $this->hold($project);
            $command = $make($project);
            $edits = $command->edits();
            if ($edits->isEmpty()) {
                return $command;
            }
            $project->changes()->where('undone', true)->delete();
            $this->apply($project, $edits);
            Change::query()->create([
                'project_id' => $project->id, 'no' => $project->next_change++, 'user_id' => $person->id,
                'name' => mb_strimwidth($command->name(), 0, 250, '…'), 'edits' => $edits->pack(), 'made_at' => now(),
            ]);
            $project->save();
            $command->recorded = true;

            return $command;
        });
        $this->follow($project, $command->recorded ? $command->edits() : null);

        return $command;
    }

    /** @return Change|null the change that was taken back */
    public function undo(Project $project): ?Change
    {
        return $this->turn($project, undone: false);
    }

    /** @return Change|null the change that was done again */
    public function redo(Project $project): ?Change
    {
        return $this->turn($project, undone: true);
    }

    public function nextUndo(Project $project): ?Change
    {
        return $project->changes()->where('undone', false)->orderByDesc('no')->first(['project_id', 'no', 'name']);
    }

    public function nextRedo(Project $project): ?Change
    {
        return $project->changes()->where('undone', true)->orderBy('no')->first(['project_id', 'no', 'name']);
    }

    private function turn(Project $project, bool $undone): ?Change
    {
        $edits = null;
        $change = DB::transaction(function () use ($project, $undone, &$edits): ?Change {
            $this->hold($project);
            $change = $project->changes()->where('undone', $undone)->orderBy('no', $undone ? 'asc' : 'desc')->first();
            if ($change === null) {
                return null;
            }
            $edits = Edits::unpack($change->edits);
            if (! $undone) {
                $edits = $edits->reversed();
            }
            $this->apply($project, $edits);
            Change::query()->where('project_id', $project->id)->where('no', $change->no)->update(['undone' => ! $undone]);
            $project->save();

            return $change;
        });
        $this->follow($project, $edits);

        return $change;
    }

    /** Everybody else who wants to change the project waits here. */
    private function hold(Project $project): void
    {
        $project->setRawAttributes(Project::query()->lockForUpdate()->findOrFail($project->id)->getAttributes(), true);
    }

    private function apply(Project $project, Edits $edits): void
    {
        foreach ($edits->steps as $step) {
            $step->apply($project);
        }
        $project->revision++;
    }

    /** Brings the scene index along once the database has the change. Should that fail, the index is built anew when it is next needed. */
    private function follow(Project $project, ?Edits $edits): void
    {
        if ($edits === null) {
            return;
        }
        $before = (clone $project)->setAttribute('revision', $project->revision - 1);
        $changed = [];
        foreach ($edits->steps as $step) {
            $scene = new \VineShelf\Scene\Scene(new ChangedColumns($changed, $this->scenes->columns($before)));
            $columns = $step->columns($scene);
            if ($columns === null) {
                return;
            }
            $changed = $columns + $changed;
        }
        $this->scenes->carry($project, $project->revision - 1, $changed);
    }
}
