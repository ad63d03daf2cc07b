<?php

declare(strict_types=1);

namespace App\Console\Commands;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;

final class Work extends Command
{
    /** Hours between two sweeps, a little under a day so that they do not wander. */
    private const HOURS = 23;

    protected $signature = 'shelf:work {--once : until the queue is empty} {--queue= : only these queues, with commas}';

    protected $description = 'Take in files from the queue, and sweep up once a day; ends after an hour so that memory stays fresh';

    public function handle(): int
    {
        // Jobs that a killed worker held are free again at once; an import that another worker still holds is protected by its own lock.
        DB::table('jobs')
            ->whereNotNull('reserved_at')
            ->update(['reserved_at' => null]);
        $queues = $this->option('queue') ?? config('shelf.queues');
        if ($this->option('once')) {
            return $this->call('queue:work', [
                '--queue' => $queues,
                '--stop-when-empty' => true,
                '--sleep' => '0.1',
                '--quiet' => true,
            ]);
        }
        // Whoever gets the key sweeps; the others find it taken.
        if (Cache::add('swept', true, now()->addHours(self::HOURS))) {
            $this->call('shelf:sweep');
        }

        return $this->call('queue:work', [
            '--queue' => $queues,
            '--sleep' => '0.3',
            '--max-time' => 3600,
            '--memory' => 480,
            '--quiet' => true,
        ]);
    }
}
