<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\ChangeView;
use App\Models\View;
use App\Workbench\ViewOnDesk;
use VineShelf\Geometry\Box;

final class HandleView extends OnBench
{
    private const FACETS = ['camera', 'rungs', 'output'];

    protected $signature =
        'shelf:view {project} {act : keep, apply, update or delete} {name : of the view} '.
        '{--keeps=rungs : what it keeps of camera, rungs, output; commas between} {--person=} {--json}';

    protected $description = 'Keep a view of the desk, apply, update or delete it';

    public function handle(): int
    {
        $bench = $this->bench();
        $name = (string) $this->argument('name');

        return match ((string) $this->argument('act')) {
            'keep' => $this->keep($bench, $name),
            'apply' => $this->apply($bench, self::named($bench, $name)),
            'update' => $this->carryOut(
                $bench,
                static function (Bench $held) use ($name): ChangeView {
                    $view = self::named($held, $name);

                    return ChangeView::update(
                        $held->project,
                        $view->no,
                        $view->camera,
                        false,
                        $held->kept(),
                        $held->outputs()->settings(),
                        null,
                    );
                },
                'It is so already.',
            ),
            'delete' => $this->carryOut(
                $bench,
                static fn (Bench $held): ChangeView => ChangeView::delete($held->project, self::named($held, $name)->no),
                '',
            ),
            default => throw new Refused('A view can be kept, applied, updated or deleted: keep, apply, update, delete.'),
        };
    }

    private function keep(Bench $bench, string $name): int
    {
        $keeps = array_values(array_filter(array_map(trim(...), explode(',', (string) $this->option('keeps')))));
        $unknown = array_diff($keeps, self::FACETS);
        if ($unknown !== []) {
            throw new Refused('A view cannot keep '.implode(', ', $unknown).'; it keeps '.implode(', ', self::FACETS).'.');
        }

        return $this->carryOut(
            $bench,
            static fn (Bench $held): ChangeView => ChangeView::keep(
                $held->project,
                $name,
                in_array('camera', $keeps, true) ? self::camera($held) : null,
                in_array('rungs', $keeps, true) ? $held->kept() : null,
                in_array('output', $keeps, true) ? $held->outputs()->settings() : null,
                '',
            ),
            '',
        );
    }

    private function apply(Bench $bench, View $view): int
    {
        ViewOnDesk::apply($bench, $view);

        return $this->answer("$view->name applied.");
    }

    /** @throws Refused */
    private static function named(Bench $bench, string $name): View
    {
        return $bench->project->views()->where('name', $name)->first() ?? throw new Refused("There is no view $name.");
    }

    /** @return array{eye: list<float>, target: list<float>, fov: float} scripts have no canvas: the whole model, from above */
    private static function camera(Bench $bench): array
    {
        $box = new Box;
        foreach ($bench->scene()->children(0) as $root) {
            $place = $bench->facts()->placeFromOrigin($root);
            $box = $place === null ? $box : $box->with(new Box(...$place));
        }
        $middle = $box->middle();
        $far = 1.4 * max(1.0, $box->isEmpty() ? 1.0 : 2 * self::length($box->halves()));

        return [
            'eye' => [$middle[0] + 0.5 * $far, $middle[1] - 0.7 * $far, $middle[2] + 0.5 * $far],
            'target' => $middle,
            'fov' => 45.0,
        ];
    }

    /** @param array{float, float, float} $sides */
    private static function length(array $sides): float
    {
        return hypot($sides[0], hypot($sides[1], $sides[2]));
    }
}
