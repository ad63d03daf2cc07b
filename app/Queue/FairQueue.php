<?php

declare(strict_types=1);

namespace App\Queue;

use Illuminate\Database\Connection;
use Illuminate\Queue\DatabaseQueue;
use Illuminate\Queue\Jobs\DatabaseJobRecord;

/**
 * Jobs in the database. Within a queue the person comes next who has waited longest since a job of theirs was begun, however many jobs
 * others have. A job belongs to the worker that runs it for as long as that worker lives, {@see WorkerLife}: then the next worker gets it,
 * at once.
 */
final class FairQueue extends DatabaseQueue
{
    private int $owner = 0;

    public function __construct(
        Connection $database,
        string $table,
        string $default,
        private readonly WorkerLife $life,
    ) {
        parent::__construct($database, $table, $default);
    }

    public function push($job, $data = '', $queue = null)
    {
        $this->owner = $job instanceof Owned ? $job->owner() : 0;

        return parent::push($job, $data, $queue);
    }

    public function later($delay, $job, $data = '', $queue = null)
    {
        $this->owner = $job instanceof Owned ? $job->owner() : 0;

        return parent::later($delay, $job, $data, $queue);
    }

    public function release($queue, $job, $delay)
    {
        $this->owner = self::of($job)[2];

        return parent::release($queue, $job, $delay);
    }

    public function pop($queue = null)
    {
        $this->life->hold();

        return parent::pop($queue);
    }

    /** @return array<string, mixed> */
    protected function buildDatabaseRecord($queue, $payload, $availableAt, $attempts = 0): array
    {
        return ['owner' => $this->owner] + parent::buildDatabaseRecord($queue, $payload, $availableAt, $attempts);
    }

    protected function getNextAvailableJob($queue): ?DatabaseJobRecord
    {
        $found = $this->database->selectOne(
            "SELECT waiting.* FROM $this->table waiting
            LEFT JOIN queue_turns turns ON turns.queue = waiting.queue AND turns.owner = waiting.owner
            WHERE waiting.queue = ? AND CASE WHEN reserved_at IS NULL THEN available_at <= ? ELSE NOT ".WorkerLife::LIVES.' END
            ORDER BY turns.begun_at NULLS FIRST, waiting.id LIMIT 1 FOR UPDATE OF waiting SKIP LOCKED',
            [$this->getQueue($queue), $this->currentTime()],
            false,
        );

        return $found instanceof \stdClass ? new DatabaseJobRecord($found) : null;
    }

    protected function markJobAsReserved($job): DatabaseJobRecord
    {
        [$id, $queue, $owner] = self::of($job);
        $this->database->table($this->table)->where('id', $id)->update(['worker' => $this->life->number]);
        $this->database->statement(
            'INSERT INTO queue_turns (queue, owner, begun_at) VALUES (?, ?, clock_timestamp())
            ON CONFLICT (queue, owner) DO UPDATE SET begun_at = excluded.begun_at',
            [$queue, $owner],
        );

        return parent::markJobAsReserved($job);
    }

    /** @return array{int, string, int} number, queue and owner of a job as it is stored */
    private static function of(DatabaseJobRecord $job): array
    {
        return [(int) $job->__get('id'), (string) $job->__get('queue'), (int) $job->__get('owner')];
    }
}
