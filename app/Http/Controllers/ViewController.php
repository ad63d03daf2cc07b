<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Changes\ChangeView;
use App\Changes\History;
use App\Models\Desk;
use App\Models\Project;
use App\Models\View as SavedView;
use App\Workbench\Answer;
use App\Workbench\ViewOnDesk;
use App\Workbench\ViewPicture;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Rungs\Rung;

/** The shelf: views are kept, applied, updated, renamed and deleted. */
final class ViewController
{
    public function __construct(private readonly History $history) {}

    /** Asks what the new view is to keep. */
    public function create(Bench $bench): View
    {
        return view('workbench.keep-view', ['bench' => $bench, 'name' => 'View '.$bench->project->next_view]);
    }

    public function store(Request $request, Bench $bench): Response
    {
        $picture = ViewPicture::of($request, $bench->project, 'facets');
        $command = $this->history->carryOut(
            $bench,
            fn (Bench $held): ChangeView => ChangeView::keep(
                $held->project,
                $request->string('name')->trim()->value(),
                $this->camera($request),
                $request->boolean('keep_rungs') ? $held->kept() : null,
                $request->boolean('keep_output') ? $held->outputs()->settings() : null,
                $picture?->file() ?? '',
            ),
        );
        DeskChange::on($bench, static function (Desk $desk) use ($command): void {
            $desk->view_no = $command->number;
        });

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['shelf' => "V$command->number"])
            ->send();
    }

    public function apply(Request $request, Bench $bench, int $view): Response
    {
        $found = $this->found($bench->project, $view);
        ViewOnDesk::apply($bench, $found);

        return Answer::to($bench, $request)
            ->saying("$found->name applied.", $found->keepsRungs() ? 'desk' : '')
            ->with(array_filter(['camera' => $found->camera, 'shelf' => "V$view"]))
            ->send();
    }

    /** Shows what updating the view from the desk would change. */
    public function preview(Bench $bench, int $view): View
    {
        $found = $this->found($bench->project, $view);
        $rows = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            $kept = $found->settings()->layer($layer->number) ?? Rung::Full;
            $now = $bench->settings()->layer($layer->number) ?? Rung::Full;
            if ($kept !== $now) {
                $rows[] = [$layer->name, $kept, $now];
            }
        }

        return view('workbench.update-view', [
            'bench' => $bench,
            'view' => $found,
            'rows' => $rows,
            'objects' => $found->settings()->difference($bench->settings())['objects'],
        ]);
    }

    public function update(Request $request, Bench $bench, int $view): Response
    {
        $picture = ViewPicture::of($request, $bench->project, 'facets');
        $make = fn (Bench $held): ChangeView => match (true) {
            $request->has('name') => ChangeView::rename($held->project, $view, $request->string('name')->value()),
            $request->has('newcomers') => ChangeView::newcomers($held->project, $view, $request->integer('newcomers')),
            $request->has('reviewed') => ChangeView::review($held->project, $view),
            default => ChangeView::update(
                $held->project,
                $view,
                $this->camera($request),
                $request->boolean('keep_camera'),
                $held->kept(),
                $held->outputs()->settings(),
                $picture?->file(),
            ),
        };
        $command = $this->history->carryOut($bench, $make);

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    public function destroy(Request $request, Bench $bench, int $view): Response
    {
        $command = $this->history->carryOut($bench, static fn (Bench $held): ChangeView => ChangeView::delete($held->project, $view));

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    private function found(Project $project, int $view): SavedView
    {
        return $project->views()->where('no', $view)->firstOrFail();
    }

    /** @return array{eye: list<float>, target: list<float>, fov: float, tall?: float, up?: list<float>}|null */
    private function camera(Request $request): ?array
    {
        if (! $request->boolean('keep_camera')) {
            return null;
        }
        $given = json_decode($request->string('camera')->value(), true);
        $point = static function (mixed $value): array {
            $numbers = is_array($value)
                ? array_values(
                    array_filter(
                        $value,
                        static fn (mixed $number): bool => (is_int($number) || is_float($number)) && is_finite((float) $number),
                    ),
                )
                : [];
            if (count($numbers) !== 3) {
                throw new Refused('The camera could not be read; move it a little and try again.', 'facets');
            }

            return array_map(floatval(...), $numbers);
        };
        $camera = is_array($given) ? $given : [];
        $fov = $camera['fov'] ?? null;

        $tall = $camera['tall'] ?? null;

        return [
            'eye' => $point($camera['eye'] ?? null),
            'target' => $point($camera['target'] ?? null),
            'fov' => is_int($fov) || is_float($fov) ? max(1.0, min(150.0, (float) $fov)) : 45.0,
        ] +
            (is_int($tall) || is_float($tall)
                ? ['tall' => max(0.001, min(1e7, (float) $tall)), 'up' => $point($camera['up'] ?? [0, 0, 1])]
                : []);
    }
}
