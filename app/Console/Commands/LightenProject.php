<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Jobs\Lighten;
use App\Lighten\Applying;
use App\Lighten\Asked;
use App\Lighten\Proposal;
use App\Lighten\Proposing;
use App\Models\Lightening;
use App\Models\View;
use Illuminate\Support\Str;
use VineShelf\Rungs\Rung;

final class LightenProject extends OnBench
{
    protected const WAITS = true;

    protected $signature =
        'shelf:lighten {project} {--triangles= : that all may have} {--view= : seen from there; from everywhere when not given} '.
        '{--apply : set the rungs} {--back : give back what was lightened last} {--output : for pictures, instead of on the desk} '.
        '{--layers : rungs of layers only} {--keep= : a rule: what stays as it is} {--boxes : hide nothing} {--person=} {--json}';

    protected $description = 'Propose rungs that fit a budget and lose little of the picture; apply them, give them back';

    public function handle(): int
    {
        $bench = $this->bench();
        if ($this->option('back')) {
            $last = Lightening::query()
                ->where('project_id', $bench->project->id)
                ->where('user_id', $bench->person->id)
                ->whereNotNull('applied_at')
                ->whereNull('given_back_at')
                ->orderByDesc('applied_at')
                ->orderByDesc('id')
                ->first();

            return $this->answer(Applying::giveBack($bench, $last ?? throw new Refused('Nothing is lightened that could be given back.')));
        }
        $asked = $this->asked($bench);
        $proposal = (new Proposing($bench, $asked))->whole();
        $says = self::says($asked, $proposal);
        if ($this->option('apply') && ! $proposal->isNothing()) {
            $lightening = Lightening::query()->create([
                'key' => Str::lower(Str::random(20)),
                'project_id' => $bench->project->id,
                'user_id' => $bench->person->id,
                'wanted' => $asked->toArray(),
            ]);
            Lighten::keep($lightening, $proposal);
            $says = Applying::apply($bench, $lightening)." $says";
        }
        $rungs = [];
        foreach ($proposal->settings->objects as $rung => $numbers) {
            foreach ($numbers->rows() as $number) {
                $rungs[$number] = $rung;
            }
        }
        $layers = [];
        foreach ($proposal->settings->layers as $layer => $rung) {
            $layers[str_replace(' › ', ' / ', $bench->layers()->path($layer))] = $rung;
        }

        return $this->answer($says, $proposal->report + ['objects' => (object) $rungs, 'rungsOfLayers' => (object) $layers]);
    }

    /** @throws Refused */
    private function asked(Bench $bench): Asked
    {
        $triangles = $this->option('triangles');
        if (! is_string($triangles) || preg_match('~^\d{1,12}$~D', $triangles) !== 1) {
            throw new Refused('Say how many triangles it may have: --triangles=400000.');
        }
        $name = $this->option('view');
        $view = is_string($name) ? $bench->project->views()->where('name', $name)->first() : null;
        if (is_string($name) && ! ($view instanceof View)) {
            throw new Refused("There is no view $name.");
        }
        if ($view instanceof View && $view->camera === null) {
            throw new Refused("$view->name keeps no camera to look from.");
        }
        $keep = $this->option('keep');

        return new Asked(
            (int) $triangles,
            $this->option('output') ? 'output' : 'desk',
            $this->option('layers') ? 'layers' : 'objects',
            $view === null ? 'everywhere' : 'views',
            $view === null ? [] : [(array) $view->camera],
            is_string($keep) ? $bench->scene()->numberBits($this->picked($bench, $keep)) : null,
            ! $this->option('boxes'),
        );
    }

    private static function says(Asked $asked, Proposal $proposal): string
    {
        $report = $proposal->report;
        if ($proposal->isNothing()) {
            return 'It fits as it is: '.number_format($report['before']['triangles']).' triangles.';
        }
        $lowered = [];
        foreach ($report['lowered'] as $rung => $count) {
            $lowered[] = number_format($count).' to '.Rung::from($rung)->label();
        }

        return number_format($report['before']['triangles']).
            ' triangles become '.
            number_format($report['after']['triangles']).
            ', losing '.
            number_format(100 * $report['loss'], 2).
            ' % '.
            ($asked->cameras === [] ? 'of all there is to see' : 'of the picture').
            ': '.
            implode(', ', $lowered).
            '.';
    }
}
