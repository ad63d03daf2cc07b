<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use VineShelf\Rungs\InEffect;
use VineShelf\Views\Applied;

final class ShowEffect extends OnBench
{
    protected $signature = 'shelf:effect {project} {--view= : as that view shows it} {--person=} {--json}';

    protected $description = 'Rungs and locks in effect: a digit per object number from 1, "-" where there is no object';

    public function handle(): int
    {
        $bench = $this->bench();
        $inEffect = $bench->inEffect();
        $view = $this->option('view');
        if (is_string($view)) {
            $kept = $bench->project->views()->where('name', $view)->first() ?? throw new Refused("There is no view $view.");
            if ($kept->keepsRungs()) {
                $settings = Applied::rungs($kept->settings(), $bench->settings(), $bench->layers(), $kept->known_layer, $kept->newcomers);
                $inEffect = new InEffect($bench->scene(), $bench->organizers(), $settings);
            }
        }
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
