<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Changes\History;

final class UndoChange extends OnBench
{
    protected $signature = 'shelf:undo {project} {--person=} {--json}';

    protected $description = 'Take the last change back';

    public function handle(History $history): int
    {
        $bench = $this->bench();
        if (! $bench->mayChange()) {
            throw new Refused('That project is not theirs to change.');
        }
        $turned = $history->undo($bench);

        return $turned->change === null ? throw new Refused($turned->sentence) : $this->answer($turned->sentence);
    }
}
