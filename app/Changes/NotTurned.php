<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Models\Change;
use App\Models\User;

/** What is said where a change is not taken back or done again, and what is offered instead. */
final class NotTurned
{
    /** Says what happened instead to the change that was meant, and offers what can be done now. */
    public static function overtaken(Bench $bench, ?int $number, bool $undo, ?Change $next): Turned
    {
        $project = $bench->project;
        $meant =
            $number === null
                ? null
                : $project
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
            $number === null => ($undo ? History::done($project) : History::undone($project))->exists()
                ? 'You have nothing to '.($undo ? 'undo' : 'redo').'.'
                : 'Nothing to '.($undo ? 'undo' : 'redo').'.',
            $meant === null => 'That change is no longer in the history.',
            $undo && $meant->thinned => "“{$meant->name}” is too old: what it did is no longer kept.",
            $undo && $meant->undone => "“{$meant->name}” was taken back already, by {$by($meant->undoneBy)}.",
            $undo && $meant->barred !== '' => "“{$meant->name}” cannot be taken back: $meant->barred.",
            ! $undo && ! $meant->undone => "“{$meant->name}” is done already.",
            $next === null => 'There is nothing to '.($undo ? 'undo' : 'redo').' any more.',
            default => "“{$meant->name}” cannot be ".($undo ? 'taken back' : 'done again').' here.',
        };

        return new Turned(null, $sentence, $number === null ? null : $next, $undo);
    }

    /**
     * Says why, and what stands on the change. It must not stand before those that came earlier: the next undo passes it over, until
     * something else is taken back.
     */
    public static function refused(Bench $bench, CannotTurn $cannot, bool $undo): Turned
    {
        $change = $cannot->change;
        $sentence = "“{$change->name}” cannot be ".($undo ? 'taken back' : 'done again').": {$cannot->getMessage()}.";
        $upon = $cannot->upon ?? (new Later($bench->project, $change))->standing($cannot, $undo);
        if ($upon !== null) {
            $by = $upon->user_id === $bench->person->id ? 'you' : $upon->user->name ?? 'somebody who has left';
            $sentence .= " “{$upon->name}”, by $by, stands on it.";
        }
        if (! $undo) {
            return new Turned(null, $sentence);
        }
        Change::query()
            ->where('project_id', $bench->project->id)
            ->where('no', $change->no)
            ->update(['barred' => mb_strimwidth($cannot->getMessage(), 0, 250, '…')]);

        return new Turned(null, $sentence, History::done($bench->project)->where('user_id', $bench->person->id)->first(Change::HEAD), true);
    }
}
