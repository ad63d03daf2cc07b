<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Named;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\Command;
use App\Changes\SetOutput;
use App\Workbench\DeskSteps;
use App\Workbench\RungsOf;
use VineShelf\Output\Output;
use VineShelf\Rungs\Rung;

final class SetRung extends OnBench
{
    protected $signature =
        'shelf:rung {project} {what : layer:PATH, tag:PATH, folder:PATH or object:NUMBER} '.
        '{rung : 0 to 5, or none; with --output also desk or never} {--output : for pictures, instead of on the desk} '.
        '{--note= : why it is never in pictures} {--person=} {--json}';

    protected $description = 'Set a rung on a person\'s desk, or what pictures show';

    public function handle(): int
    {
        $bench = $this->bench();
        $asked = (string) $this->argument('rung');
        $what = (string) $this->argument('what');
        if ($this->option('output')) {
            $output = Output::named($asked);
            if ($output === null && $asked !== 'none') {
                throw new Refused('What pictures show is a number from 0 to 5, none, desk or never.');
            }

            return $this->carryOut(
                $bench,
                fn (Bench $held): SetOutput => new SetOutput(
                    $held,
                    Targets::named(Named::keys($held, $what), $held),
                    $output,
                    (string) $this->option('note'),
                ),
                'It is so already.',
            );
        }
        if (preg_match('~^([0-5]|none)$~D', $asked) !== 1) {
            throw new Refused('A rung is a number from 0 to 5, or none.');
        }
        $rung = $asked === 'none' ? null : Rung::from((int) $asked);
        $targets = Targets::named(Named::keys($bench, $what), $bench);
        $rungs = new RungsOf($bench, $targets, $rung);
        $changed = DeskSteps::take($bench, $rungs->name(), $rungs->on(...));

        return $this->answer(trim(($changed ? $rungs->said($bench) : 'It is so already.').' '.Command::lockedInWords($rungs->locked)));
    }
}
