<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;

final class ShowEffect extends OnBench
{
    protected $signature =
        'shelf:effect {project} {--view= : as that view shows it} {--output : in pictures, instead of on the desk} '.
        '{--person=} {--json}';

    protected $description = 'Rungs and locks in effect: a digit per object number from 1, "-" where there is no object';

    public function handle(): int
    {
        $bench = $this->bench();
        $name = $this->option('view');
        $view = is_string($name)
            ? $bench->project->views()->where('name', $name)->first() ?? throw new Refused("There is no view $name.")
            : null;
        $inEffect = $this->option('output') ? $bench->outputs()->of($view)->inEffect : $bench->asIn($view);
        $scene = $bench->scene();
        $digits = static fn (string $bytes): string => substr(strtr($scene->byNumber($bytes, "\xFF"), "\0\1\2\3\4\5\xFF", '012345-'), 1);
        $this->line(
            (string) json_encode([
                'rungs' => $digits($inEffect->rungs()->translated(range(0, 5))),
                'locks' => $digits($inEffect->locks()->translated(range(0, 2))),
            ]),
        );

        return self::SUCCESS;
    }
}
