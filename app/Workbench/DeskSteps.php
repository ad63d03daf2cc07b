<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Models\Desk;
use App\Models\DeskStep;
use Illuminate\Database\Eloquent\Builder;
use VineShelf\Rungs\Settings;

/** Changes a desk's rungs step by step, so that they can be taken back apart from the project's history. */
final class DeskSteps
{
    private const KEPT = 200;

    /**
     * @param callable(Settings, Settings): Settings $change of the own rungs, given also what hidden rows had before
     * @param (callable(Desk): mixed)|null $besides what else changes on the desk, and is not taken back with the rungs
     *
     * @param (callable(Desk): mixed)|null $facets  what else changes, of {@see Desk::facets()}, and is taken back with them
     *
     * @return bool whether anything changed that can be taken back
     */
    public static function take(Bench $bench, string $name, callable $change, ?callable $besides = null, ?callable $facets = null): bool
    {
        return DeskChange::on($bench, static function (Desk $desk) use ($name, $change, $besides, $facets): bool {
            if ($besides !== null) {
                $besides($desk);
            }
            $was = $desk->facets();
            if ($facets !== null) {
                $facets($desk);
            }
            $before = $desk->settings();
            $after = $change($before, $desk->beforeHiding());
            $is = $desk->facets();
            if ($before->same($after) && $is === $was) {
                return false;
            }
            $old = $desk->next_step - self::KEPT;
            self::steps($desk)
                ->where(static fn (Builder $query): Builder => $query->where('undone', true)->orWhere('no', '<=', $old))
                ->delete();
            DeskStep::query()->create([
                'project_id' => $desk->project_id,
                'user_id' => $desk->user_id,
                'no' => $desk->next_step,
                'name' => mb_strimwidth($name, 0, 250, '…'),
                'before' => $before->pack(),
                'after' => $after->pack(),
                'facets_before' => $facets === null || $is === $was ? null : $was,
                'facets_after' => $facets === null || $is === $was ? null : $is,
            ]);
            $desk->next_step++;
            $desk->putSettings($after);

            return true;
        });
    }

    public static function undo(Bench $bench): ?DeskStep
    {
        return self::turn($bench, undone: false);
    }

    public static function redo(Bench $bench): ?DeskStep
    {
        return self::turn($bench, undone: true);
    }

    /** @return array{DeskStep|null, DeskStep|null} what can be taken back, and what can be done again */
    public static function next(Desk $desk): array
    {
        $steps = self::steps($desk)
            ->where(
                static fn (Builder $query): Builder => $query
                    ->where('no', self::steps($desk)->where('undone', false)->selectRaw('max(no)'))
                    ->orWhere('no', self::steps($desk)->where('undone', true)->selectRaw('min(no)')),
            )
            ->get(['project_id', 'user_id', 'no', 'name', 'undone']);

        return [$steps->firstWhere('undone', false), $steps->firstWhere('undone', true)];
    }

    private static function turn(Bench $bench, bool $undone): ?DeskStep
    {
        return DeskChange::on($bench, static function (Desk $desk) use ($undone): ?DeskStep {
            $step = self::steps($desk)
                ->where('undone', $undone)
                ->orderBy('no', $undone ? 'asc' : 'desc')
                ->first();
            if ($step === null) {
                return null;
            }
            $desk->putSettings(Settings::unpack($undone ? $step->after : $step->before));
            $facets = $undone ? $step->facets_after : $step->facets_before;
            if ($facets !== null) {
                $desk->putFacets($facets);
            }
            $step->update(['undone' => ! $undone]);

            return $step;
        });
    }

    /** @return Builder<DeskStep> */
    private static function steps(Desk $desk): Builder
    {
        return DeskStep::query()->where('project_id', $desk->project_id)->where('user_id', $desk->user_id);
    }
}
