<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Changes\FileAlong;

final class FileByRule extends OnBench
{
    protected $signature =
        'shelf:file {project} {layer : its path, "Stands / Seats"; made where it is missing} {rule : see docs/rules.md} '.
        '{--only : not what the picked groups hold} {--person=} {--json}';

    protected $description = 'File the objects that a rule picks under a layer';

    public function handle(): int
    {
        return $this->carryOut(
            $this->bench(),
            fn (Bench $held): FileAlong => new FileAlong(
                $held,
                (string) $this->argument('layer'),
                $this->picked($held, (string) $this->argument('rule')),
                ! $this->option('only'),
            ),
            'All of it is there already.',
        );
    }
}
