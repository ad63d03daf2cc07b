<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Desk;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/**
 * How each window of a person has the ledger of a project open, and what its line says. The desk has how it was last open in any of them,
 * for what asks without a window.
 */
final class LedgerWindows
{
    /** Windows that are remembered for a person in a project. */
    public const MOST = 24;

    /** The name of a window as a request gives it; "" for none that could be one. */
    public static function named(mixed $asked): string
    {
        return is_string($asked) && preg_match('~^[a-z0-9]{4,24}$~D', $asked) === 1 ? $asked : '';
    }

    /**
     * A window is opened: one that is not known yet begins as the last one that was used has it.
     *
     * @param string $asked a window's name; "" for a new one
     * @param string $like  name of the window that it is a copy of; "" for the one that was used last
     *
     * @return string its name
     */
    public static function open(Desk $desk, string $asked, string $like = ''): string
    {
        $window = $asked === '' ? Str::lower(Str::random(12)) : $asked;
        $last = ($like === '' ? null : self::row($desk, $like)) ?? self::all($desk)->orderByDesc('used_at')->first();
        $isNew = DB::table('ledger_windows')->insertOrIgnore([
            'project_id' => $desk->project_id,
            'user_id' => $desk->user_id,
            'window' => $window,
            'arrangement' => $last->arrangement ?? (string) json_encode((object) $desk->ledger),
            'line' => $last->line ?? '',
            'used_at' => DB::raw('clock_timestamp()'),
        ]);
        if ($isNew > 0) {
            $oldest = self::all($desk)->orderByDesc('used_at')->skip(self::MOST)->take(1000)->pluck('window');
            self::all($desk)->whereIn('window', $oldest)->delete();
        }

        return $window;
    }

    /** @return array<string, mixed> as {@see Arrangement::toArray()} gives it */
    public static function arrangement(Desk $desk, string $window): array
    {
        $row = $window === '' ? null : self::row($desk, $window);
        $kept = $row === null ? null : json_decode($row->arrangement, true);

        return is_array($kept) ? $kept : $desk->ledger;
    }

    /** What the line of a window says; "" for nothing. */
    public static function line(Desk $desk, string $window): string
    {
        return self::row($desk, $window)->line ?? '';
    }

    /**
     * A window has the ledger open otherwise from now on; the desk's row is held.
     *
     * @param array<string, mixed> $kept as {@see Arrangement::toArray()} gives it
     */
    public static function put(Desk $desk, string $window, array $kept): void
    {
        $desk->ledger = $kept;
        $write = static fn (): int => self::all($desk)
            ->where('window', $window)
            ->update(['arrangement' => json_encode((object) $kept), 'used_at' => DB::raw('clock_timestamp()')]);
        // One that was forgotten meanwhile is opened once more.
        if ($window !== '' && $write() === 0) {
            self::open($desk, $window);
            $write();
        }
    }

    public static function putLine(Desk $desk, string $window, string $line): void
    {
        self::all($desk)->where('window', $window)->update(['line' => $line, 'used_at' => DB::raw('clock_timestamp()')]);
    }

    /** @return object{arrangement: string, line: string}|null */
    private static function row(Desk $desk, string $window): ?object
    {
        /** @var object{arrangement: string, line: string}|null $found */
        $found = self::all($desk)->where('window', $window)->first(['arrangement', 'line']);

        return $found;
    }

    private static function all(Desk $desk): Builder
    {
        return DB::table('ledger_windows')->where('project_id', $desk->project_id)->where('user_id', $desk->user_id);
    }
}
