<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Changes\TagAlong;

final class TagByRule extends OnBench
{
    protected $signature =
        'shelf:tag {project} {tag : its path through folders, "Phases / First"; made where it is missing} '.
        '{rule : see docs/rules.md} {--off : take the tag away} {--only : not what the picked groups hold} {--person=} {--json}';

    protected $description = 'Tag the objects that a rule picks';

    public function handle(): int
    {
        return $this->carryOut(
            $this->bench(),
            fn (Bench $held): TagAlong => new TagAlong(
                $held,
                (string) $this->argument('tag'),
                $this->picked($held, (string) $this->argument('rule')),
                ! $this->option('off'),
                ! $this->option('only'),
            ),
            $this->option('off') ? 'None of it has the tag.' : 'All of it has the tag already.',
        );
    }
}
