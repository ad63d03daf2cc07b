<?php

declare(strict_types=1);

namespace App\Database;

use Illuminate\Support\Facades\DB;

/** Reading everything that belongs together as it stood at one moment, see {@see SnapshotConnection}. */
final class ReadSnapshot
{
    /**
     * Runs something that reads at one moment, and again at one moment after each of its writes.
     *
     * @template T
     *
     * @param \Closure(): T $run
     *
     * @return T
     */
    public static function during(\Closure $run): mixed
    {
        $connection = self::connection();
        if ($connection === null || $connection->readsSnapshots()) {
            return $run();
        }
        $connection->readSnapshots(true);
        try {
            return $run();
        } finally {
            $connection->readSnapshots(false);
        }
    }

    /** The transaction that has just begun reads at one moment; what others wrote since then it cannot write, and is given up. */
    public static function ofTransaction(): void
    {
        if (DB::transactionLevel() === 1) {
            DB::statement('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ');
        }
    }

    /** Whether all that is read now is of one moment, and nobody's unfinished work: only that may be remembered by its revision. */
    public static function isOn(): bool
    {
        return self::connection()?->isInSnapshot() ?? false;
    }

    /** @return int number of the moment that is read, 0 where none is */
    public static function number(): int
    {
        return self::connection()?->snapshot() ?? 0;
    }

    private static function connection(): ?SnapshotConnection
    {
        $connection = DB::connection();

        return $connection instanceof SnapshotConnection ? $connection : null;
    }
}
