<?php

declare(strict_types=1);

namespace App\Console\Commands;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

final class Work extends Command
{
    protected $signature = 'shelf:work';

    protected $description = 'Take in files from the queue; ends after an hour so that memory stays fresh';

    public function handle(): int
    {
        // Jobs that a killed worker held are free again at once; an import that another worker still holds is protected by its own lock.
        DB::table('jobs')->whereNotNull('reserved_at')->update(['reserved_at' => null]);

        return $this->call('queue:work', ['--sleep' => '0.3', '--max-time' => 3600, '--memory' => 480, '--quiet' => true]);
    }
}
