<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Named;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\SetLocks;
use VineShelf\Locks\Lock;

final class SetLock extends OnBench
{
    protected $signature =
        'shelf:lock {project} {what : layer:PATH, tag:PATH, folder:PATH or object:NUMBER} '.
        '{lock : 0 open, 1 guarded, 2 locked} {--person=} {--json}';

    protected $description = 'Open, guard or lock';

    public function handle(): int
    {
        $asked = (string) $this->argument('lock');
        $lock = preg_match('~^[0-2]$~D', $asked) === 1 ? Lock::from((int) $asked) : throw new Refused('A lock is 0, 1 or 2.');

        return $this->carryOut(
            $this->bench(),
            fn (Bench $held): SetLocks => new SetLocks(
                $held,
                Targets::named(Named::keys($held, (string) $this->argument('what')), $held),
                $lock,
            ),
            'It is so already.',
        );
    }
}
