<?php

declare(strict_types=1);

namespace App\Intake;

use App\Bench\Refused;
use App\Files\Kept;
use App\Models\User;
use Illuminate\Support\Facades\DB;

/** Whether there is room for another file: in what a person may keep, and on the disk. */
final class Room
{
    /** Bytes on the disk that a file may come to need for each of its own: the file, its packs, and their compressed twins. */
    private const TIMES = 3;

    /**
     * @param int $bytes of the file
     *
     * @throws Refused
     */
    public static function check(User $person, int $bytes): void
    {
        $quota = (int) config('shelf.quota');
        $used = self::used($person);
        if ($used + $bytes > $quota) {
            throw new Refused(
                'With this file ('.
                    self::size($bytes).
                    ') you would keep '.
                    self::size($used + $bytes).
                    ', and '.
                    self::size($quota).
                    ' is what one person may keep. Delete a project that you no longer need.',
                'file',
            );
        }
        $free = self::free();
        if ($free !== null && $free - self::TIMES * $bytes < (int) config('shelf.reserve')) {
            throw new Refused(
                'The server has room for files of up to '.
                    self::size(max(0, intdiv($free - (int) config('shelf.reserve'), self::TIMES))).
                    ' now; this one has '.
                    self::size($bytes).
                    '.',
                'file',
            );
        }
    }

    /** Bytes that a person keeps: the sources of the projects that they own, and files on their way. */
    public static function used(User $person): int
    {
        $kept = DB::table('sources')
            ->join('project_people', 'project_people.project_id', '=', 'sources.project_id')
            ->where('project_people.user_id', $person->id)
            ->where('project_people.role', 'owner')
            ->sum('sources.kept');
        $coming = DB::table('imports')
            ->where('user_id', $person->id)
            ->whereIn('state', ['waiting', 'running'])
            ->sum('bytes');

        return (int) $kept + (int) $coming;
    }

    /** Free bytes on the disk; null where that cannot be told. */
    private static function free(): ?int
    {
        $free = @disk_free_space(Kept::disk()->path(''));

        return $free === false ? null : (int) $free;
    }

    private static function size(int $bytes): string
    {
        return $bytes >= 1_000_000_000 ? number_format($bytes / 1e9, 1).' GB' : number_format($bytes / 1e6, 1).' MB';
    }
}
