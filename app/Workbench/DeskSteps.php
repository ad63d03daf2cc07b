<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Models\Casts\Bytes;
use App\Models\Desk;
use App\Models\DeskStep;
use Illuminate\Support\Facades\DB;
use VineShelf\Rungs\Settings;

/** Changes a desk's rungs step by step, so that they can be taken back apart from the project's history. */
final class DeskSteps
{
    private const KEPT = 200;

    /** @param callable(Settings): Settings $change */
    public static function take(Desk $desk, string $name, callable $change, ?int $view = null): bool
    {
        return DB::transaction(function () use ($desk, $name, $change, $view): bool {
            $held = self::hold($desk);
            $before = $held->settings();
            $after = $change($before);
            $values = ['revision' => $held->revision + 1] + ($view === null ? [] : ['view_no' => $view]);
            if ($before->same($after)) {
                self::desk($desk)->update($values);

                return false;
            }
            DeskStep::query()->where('project_id', $desk->project_id)->where('user_id', $desk->user_id)->where('undone', true)->delete();
            DeskStep::query()->create([
                'project_id' => $desk->project_id, 'user_id' => $desk->user_id, 'no' => $held->next_step,
                'name' => mb_strimwidth($name, 0, 250, '…'), 'before' => $before->pack(), 'after' => $after->pack(),
            ]);
            DeskStep::query()->where('project_id', $desk->project_id)->where('user_id', $desk->user_id)->where('no', '<=', $held->next_step - self::KEPT)->delete();
            self::desk($desk)->update(['rungs' => Bytes::write($after->pack()), 'next_step' => $held->next_step + 1] + $values);

            return true;
        });
    }

    public static function undo(Desk $desk): ?DeskStep
    {
        return self::turn($desk, undone: false);
    }

    public static function redo(Desk $desk): ?DeskStep
    {
        return self::turn($desk, undone: true);
    }

    public static function next(Desk $desk, bool $undone): ?DeskStep
    {
        return DeskStep::query()->where('project_id', $desk->project_id)->where('user_id', $desk->user_id)->where('undone', $undone)
            ->orderBy('no', $undone ? 'asc' : 'desc')->first(['project_id', 'user_id', 'no', 'name']);
    }

    private static function turn(Desk $desk, bool $undone): ?DeskStep
    {
        return DB::transaction(function () use ($desk, $undone): ?DeskStep {
            $held = self::hold($desk);
            $step = DeskStep::query()->where('project_id', $desk->project_id)->where('user_id', $desk->user_id)->where('undone', $undone)
                ->orderBy('no', $undone ? 'asc' : 'desc')->first();
            if ($step === null) {
                return null;
            }
            self::desk($desk)->update(['rungs' => Bytes::write($undone ? $step->after : $step->before), 'revision' => $held->revision + 1]);
            $step->update(['undone' => ! $undone]);

            return $step;
        });
    }

    private static function hold(Desk $desk): Desk
    {
        return self::desk($desk)->lockForUpdate()->firstOrFail(['project_id', 'user_id', 'revision', 'next_step', 'rungs']);
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Desk> */
    private static function desk(Desk $desk): \Illuminate\Database\Eloquent\Builder
    {
        return Desk::query()->where('project_id', $desk->project_id)->where('user_id', $desk->user_id);
    }
}
