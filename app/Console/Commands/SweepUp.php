<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Jobs\Sweep;

final class SweepUp extends Scripted
{
    protected $signature = 'shelf:sweep';

    protected $description =
        'Remove files that nothing names any more, and resume imports whose worker is gone; the worker does so every '.'night';

    public function handle(): int
    {
        ['removed' => $removed, 'resumed' => $resumed] = (new Sweep)->run();
        $this->line(
            number_format($removed).
                ' '.
                ($removed === 1 ? 'file' : 'files').
                ' removed'.
                ($resumed > 0 ? ", $resumed resumed" : '').
                '.',
        );

        return self::SUCCESS;
    }
}
