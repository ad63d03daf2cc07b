<?php

declare(strict_types=1);

namespace App\Console\Commands;

use Illuminate\Console\Command;
use Illuminate\Queue\Events\JobProcessed;
use Illuminate\Support\Facades\Cache;

final class Work extends Command
{
    /** Hours between two sweeps, a little under a day so that they do not wander. */
    private const HOURS = 23;

    /** Megabytes: a worker that has grown beyond is replaced once its job is done. */
    private const MEMORY = 256;

    protected $signature = 'shelf:work {--once : until the queue is empty} {--place=1 : which of the workers this is}
        {--queue= : only these queues, with commas}';

    protected $description = 'Take in files from the queue, and sweep up once a day; ends after an hour so that memory stays fresh';

    public function handle(): int
    {
        /** @var non-empty-list<string> $workers */
        $workers = config('shelf.workers');
        $queues = $this->option('queue') ?? $workers[max(0, (int) $this->option('place') - 1) % count($workers)];
        // What a job has let go of is given back, and does not count as grown.
        $this->laravel->make('events')->listen(JobProcessed::class, static function (): void {
            gc_collect_cycles();
            gc_mem_caches();
        });
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
            '--memory' => self::MEMORY,
            '--quiet' => true,
        ]);
    }
}
