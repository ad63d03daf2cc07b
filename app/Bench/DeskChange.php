<?php

declare(strict_types=1);

namespace App\Bench;

use App\Database\ReadSnapshot;
use App\Models\Desk;
use App\Models\Revision;
use Illuminate\Support\Facades\DB;
use VineShelf\Rungs\Settings;

/**
 * The one way to write a desk: its row is held, the change works on what is there now, the revision rises, and what was picked before is
 * remembered. The desk and the project that a change looks at are of one moment; where another window was quicker, the change is worked out
 * once more.
 */
final class DeskChange
{
    /** How often a change is worked out at most; each further time another window was quicker. */
    private const ATTEMPTS = 40;

    /** Nobody else writes the row; steps of the desk may point at it. */
    public const HELD = 'for no key update';

    /**
     * @template T
     *
     * @param callable(Desk): T $change changes the desk that it is given; may be called again, after what it did is taken back
     *
     * @return T what the change returned
     */
    public static function on(Bench $bench, callable $change): mixed
    {
        [$desk, $result] = DB::transaction(static function () use ($bench, $change): array {
            ReadSnapshot::ofTransaction();
            $desk = self::held($bench->project->id, $bench->person->id);
            $bench->catchUp();
            $picked = $desk->pick();
            $result = $change($desk);
            PickHistory::follow($desk, $picked);
            $desk->revision = Revision::after($desk->revision);
            $desk->save();

            return [$desk, $result];
        }, self::ATTEMPTS);
        $bench->sit($desk);

        return $result;
    }

    /**
     * New objects of people whose landing layer is gone land elsewhere.
     *
     * @param int $from number of the layer that is gone
     */
    public static function land(int $project, int $from, int $to): void
    {
        DB::transaction(static function () use ($project, $from, $to): void {
            $desks = Desk::query()->where('project_id', $project)->where('landing_layer', $from)->orderBy('user_id');
            foreach ($desks->lock(self::HELD)->get() as $desk) {
                $desk->landing_layer = $to;
                $desk->revision = Revision::after($desk->revision);
                $desk->save();
            }
        }, self::ATTEMPTS);
    }

    /**
     * The own rungs of every desk of a project change with it, without a step of the desk: together with a change that makes objects.
     *
     * @param callable(Settings): Settings $change
     */
    public static function everywhere(int $project, callable $change): void
    {
        $desks = Desk::query()->where('project_id', $project)->whereNotNull('rungs')->orderBy('user_id');
        foreach ($desks->lock(self::HELD)->get() as $desk) {
            $before = $desk->settings();
            $after = $change($before);
            if (! $after->same($before)) {
                $desk->putSettings($after);
                $desk->revision = Revision::after($desk->revision);
                $desk->save();
            }
        }
    }

    private static function held(int $project, int $person): Desk
    {
        return Desk::query()->where('project_id', $project)->where('user_id', $person)->lock(self::HELD)->firstOrFail();
    }
}
