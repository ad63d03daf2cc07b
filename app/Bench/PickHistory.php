<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Casts\Bytes;
use App\Models\Desk;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Scene;

/**
 * What a person had picked before, and after it: picks that held anything, in the order of picking. The desk says which of them it came
 * to last; an empty pick is none, so that what a click on nothing cleared is one step away.
 */
final class PickHistory
{
    /** As many are kept. */
    public const DEPTH = 50;

    /** Remembers what is picked on a desk now; its row is held. @param Pick $before what was picked when it was read */
    public static function follow(Desk $desk, Pick $before): void
    {
        if ($desk->isDirty('pick_at')) {
            // It was a step to one that is remembered.
            return;
        }
        $now = $desk->pick();
        if ($now->count() === 0 || $now->pack() === $before->pack()) {
            // What had been picked when nothing was remembered yet is remembered once it is cleared.
            if ($now->count() === 0 && $before->count() > 0 && $desk->pick_at === 0) {
                self::put($desk, $before);
            }

            return;
        }
        if ($desk->pick_at === 0 && $before->count() > 0) {
            self::put($desk, $before);
        }
        if (self::read($desk, $desk->pick_at)?->pack() !== $now->pack()) {
            self::put($desk, $now);
        }
    }

    /**
     * The desk's pick becomes the one before, or the one after; those of which nothing is in the project any more,
     * or nothing else than is picked, are passed over.
     *
     * @param int $way -1 for the one before, 1 for the one after
     *
     * @return Pick|null null when there is none
     */
    public static function step(Desk $desk, Scene $scene, int $way): ?Pick
    {
        // What was cleared comes back first.
        $at = $desk->pick_at + ($way < 0 && $desk->pick()->count() === 0 ? 0 : $way);
        for (; ($pick = self::read($desk, $at)) !== null; $at += $way) {
            $rows = $pick->rows($scene);
            $left = $rows->count() === $pick->count() ? $pick : Pick::ofBits($scene->numberBits($rows));
            if ($left->count() > 0 && $left->pack() !== $desk->pick()->pack()) {
                $desk->pick_at = $at;
                $desk->putPick($left);

                return $left;
            }
        }

        return null;
    }

    private static function put(Desk $desk, Pick $pick): void
    {
        $number = $desk->pick_at + 1;
        self::of($desk)
            ->where(static fn (Builder $query) => $query->where('no', '>=', $number)->orWhere('no', '<=', $number - self::DEPTH))
            ->delete();
        DB::table('picks')->insert([
            'project_id' => $desk->project_id,
            'user_id' => $desk->user_id,
            'no' => $number,
            'pick' => Bytes::write($pick->pack()),
        ]);
        $desk->pick_at = $number;
    }

    private static function read(Desk $desk, int $number): ?Pick
    {
        $packed = self::of($desk)->where('no', $number)->value('pick');

        return $packed === null ? null : Pick::unpack(Bytes::read($packed));
    }

    private static function of(Desk $desk): Builder
    {
        return DB::table('picks')->where('project_id', $desk->project_id)->where('user_id', $desk->user_id);
    }
}
