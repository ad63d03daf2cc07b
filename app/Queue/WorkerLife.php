<?php

declare(strict_types=1);

namespace App\Queue;

use Illuminate\Database\ConnectionInterface;
use Illuminate\Support\Facades\DB;

/**
 * Whether a worker lives: each has a number, and a lock of that number on a connection of its own, which the database lets go of when the
 * process ends, however it ends.
 */
final class WorkerLife
{
    /** First half of the locks' names; the second is the worker's number. */
    private const LOCK = 72_001;

    /** A condition on jobs, called "waiting": the worker that runs it lives. */
    public const LIVES = "EXISTS (SELECT 1 FROM pg_locks WHERE locktype = 'advisory' AND classid = ".self::LOCK.'
        AND objid::bigint = waiting.worker AND objsubid = 2
        AND database = (SELECT oid FROM pg_database WHERE datname = current_database()))';

    /** Number of this process among workers. */
    public readonly int $number;

    public function __construct()
    {
        $this->number = random_int(1, 2_000_000_000);
    }

    /** Says that this process lives; once more where the connection was lost. */
    public function hold(): void
    {
        $held = self::connection()->selectOne(
            "SELECT count(*) AS locks FROM pg_locks
            WHERE locktype = 'advisory' AND classid = ? AND objid::bigint = ? AND pid = pg_backend_pid()",
            [self::LOCK, $this->number],
        );
        if ((int) $held->locks === 0) {
            self::connection()->select('SELECT pg_advisory_lock(?, ?)', [self::LOCK, $this->number]);
        }
    }

    private static function connection(): ConnectionInterface
    {
        return DB::connection('alive');
    }
}
