<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Changes\KeepSet;

final class KeepSetByRule extends OnBench
{
    protected $signature =
        'shelf:set {project} {set : its path through folders; made where it is missing} {rule : see docs/rules.md} '.
        '{--fixed : keep what the rule picks now, not the rule} {--person=} {--json}';

    protected $description = 'Keep a selection set: live, or with --fixed a list of members';

    public function handle(): int
    {
        $rule = (string) $this->argument('rule');

        return $this->carryOut(
            $this->bench(),
            fn (Bench $held): KeepSet => new KeepSet(
                $held,
                (string) $this->argument('set'),
                $rule,
                $this->option('fixed') ? $this->picked($held, $rule) : null,
            ),
            'The set is that already.',
        );
    }
}
