<?php

declare(strict_types=1);

namespace App\Database;

use Illuminate\Database\PostgresConnection;
use Illuminate\Database\QueryException;

/**
 * While it is asked to, reads everything as it stood at one moment: the first that is read begins a snapshot (a transaction at REPEATABLE
 * READ that only reads), and it lasts until something is written. What is read after that is of another moment, again a single one.
 *
 * Snapshots are not counted as transactions: to the framework, reading in one is reading outside of any.
 */
final class SnapshotConnection extends PostgresConnection
{
    private bool $readsSnapshots = false;

    private bool $isOpen = false;

    private int $begun = 0;

    /** @param bool $on whether what is read from now on is to be of one moment */
    public function readSnapshots(bool $on): void
    {
        $this->endSnapshot();
        $this->readsSnapshots = $on;
    }

    public function readsSnapshots(): bool
    {
        return $this->readsSnapshots;
    }

    /** Whether all that is read now is of one moment, and nobody's unfinished work. */
    public function isInSnapshot(): bool
    {
        return $this->readsSnapshots && $this->transactionLevel() === 0;
    }

    /** @return int number of the snapshot that is read from now, 0 for none */
    public function snapshot(): int
    {
        return $this->isOpen ? $this->begun : 0;
    }

    public function endSnapshot(): void
    {
        if ($this->isOpen) {
            $this->isOpen = false;
            $this->getPdo()->exec('ROLLBACK');
        }
    }

    /**
     * @param array<array-key, mixed> $bindings
     *
     * @return array<array-key, mixed>
     */
    public function select($query, $bindings = [], $useReadPdo = true)
    {
        self::onlyReads($query) ? $this->beginSnapshot() : $this->endSnapshot();
        try {
            return parent::select($query, $bindings, $useReadPdo);
        } catch (QueryException $failed) {
            $this->endSnapshot();
            throw $failed;
        }
    }

    /** @param array<array-key, mixed> $bindings */
    public function cursor($query, $bindings = [], $useReadPdo = true)
    {
        $this->beginSnapshot();

        return parent::cursor($query, $bindings, $useReadPdo);
    }

    /** @param array<array-key, mixed> $bindings */
    public function statement($query, $bindings = [])
    {
        $this->endSnapshot();

        return parent::statement($query, $bindings);
    }

    /** @param array<array-key, mixed> $bindings */
    public function affectingStatement($query, $bindings = [])
    {
        $this->endSnapshot();

        return parent::affectingStatement($query, $bindings);
    }

    public function unprepared($query)
    {
        $this->endSnapshot();

        return parent::unprepared($query);
    }

    public function beginTransaction(): void
    {
        $this->endSnapshot();
        parent::beginTransaction();
    }

    public function reconnect()
    {
        $this->isOpen = false;

        return parent::reconnect();
    }

    public function disconnect(): void
    {
        $this->isOpen = false;
        parent::disconnect();
    }

    private function beginSnapshot(): void
    {
        if ($this->readsSnapshots && ! $this->isOpen && $this->transactionLevel() === 0) {
            // Run as any statement is, so that a connection that has died is opened anew.
            parent::unprepared('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY');
            $this->isOpen = true;
            $this->begun++;
        }
    }

    /** An insert that returns something comes as a select as well, and so does a row that is to be held. */
    private static function onlyReads(string $query): bool
    {
        return preg_match('~^\s*\(?\s*select\b~i', $query) === 1 &&
            preg_match('~\bfor\s+(no\s+key\s+)?(key\s+)?(update|share)\b~i', $query) === 0;
    }
}
