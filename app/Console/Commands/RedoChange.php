<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Changes\History;

final class RedoChange extends OnBench
{
    protected $signature = 'shelf:redo {project} {--person=} {--json}';

    protected $description = 'Do again what was taken back last';

    public function handle(History $history): int
    {
        $bench = $this->bench();
        if (! $bench->mayChange()) {
            throw new Refused('That project is not theirs to change.');
        }
        $turned = $history->redo($bench);

        return $turned->change === null ? throw new Refused($turned->sentence) : $this->answer($turned->sentence);
    }
}
