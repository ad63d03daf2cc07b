<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Changes\ChangeView;
use App\Changes\History;
use App\Changes\Refused;
use App\Models\Desk;
use App\Models\Project;
use App\Models\View as SavedView;
use App\Workbench\Answer;
use App\Workbench\Bench;
use App\Workbench\DeskSteps;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Storage;
use Illuminate\View\View;
use VineShelf\Rungs\Settings;
use VineShelf\Views\Applied;

/** The shelf: views are kept, applied, updated, renamed and deleted. */
final class ViewController
{
    private const PICTURE_BYTES = 400_000;

    public function __construct(private readonly History $history) {}

    /** Asks what the new view is to keep. */
    public function create(Request $request, Project $project): View
    {
        return view('workbench.keep-view', ['bench' => Bench::of($project, WorkbenchController::person($request)), 'name' => 'View '.$project->next_view]);
    }

    public function store(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $picture = $this->picture($request, $project);
        $command = $this->history->carryOut($project, $bench->person, fn (Project $held): ChangeView => ChangeView::keep(
            $held,
            $request->string('name')->trim()->value(),
            $this->camera($request),
            $request->boolean('keep_rungs') ? $bench->settings() : null,
            $picture,
        ));
        $this->desk($bench)->update(['view_no' => $command->number]);

        return Answer::to($bench, $request)->after($command, '')->with(['shelf' => $command->number])->send();
    }

    public function apply(Request $request, Project $project, int $view): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $found = $this->found($project, $view);
        if ($found->keepsRungs()) {
            $layers = $bench->layers();
            DeskSteps::take($bench->desk, "Apply view $found->name", static fn (Settings $desk): Settings => Applied::rungs($found->settings(), $desk, $layers, $found->known_layer, $found->newcomers), $view);
        } else {
            $this->desk($bench)->update(['view_no' => $view, 'revision' => $bench->desk->revision + 1]);
        }
        // A view shows what it shows: isolating ends with it.
        $this->desk($bench)->update(['isolated' => null]);
        $bench->refresh();

        return Answer::to($bench, $request)->saying("$found->name applied.", $found->keepsRungs() ? 'desk' : '')->with(array_filter(['camera' => $found->camera, 'shelf' => $view]))->send();
    }

    /** Shows what updating the view from the desk would change. */
    public function preview(Request $request, Project $project, int $view): View
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $found = $this->found($project, $view);
        $rows = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            $kept = $found->settings()->layer($layer->number);
            $now = $bench->settings()->layer($layer->number);
            if ($kept !== $now) {
                $rows[] = [$layer->name, $kept, $now];
            }
        }

        return view('workbench.update-view', ['bench' => $bench, 'view' => $found, 'rows' => $rows, 'objects' => Applied::difference($found->settings(), $bench->settings())['objects']]);
    }

    public function update(Request $request, Project $project, int $view): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $found = $this->found($project, $view);
        if ($request->has('name')) {
            $make = static fn (Project $held): ChangeView => ChangeView::rename($held, $found, $request->string('name')->value());
        } elseif ($request->has('newcomers')) {
            $make = static fn (Project $held): ChangeView => ChangeView::newcomers($held, $found, $request->integer('newcomers'));
        } elseif ($request->has('reviewed')) {
            $make = static fn (Project $held): ChangeView => ChangeView::review($held, $found);
        } else {
            $picture = $this->picture($request, $project);
            $camera = $found->camera === null && ! $request->boolean('keep_camera') ? null : $this->camera($request);
            $make = static fn (Project $held): ChangeView => ChangeView::update($held, $found, $camera, $found->keepsRungs() ? $bench->settings() : null, $picture === '' ? $found->picture : $picture);
        }
        $command = $this->history->carryOut($project, $bench->person, $make);

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    public function destroy(Request $request, Project $project, int $view): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $found = $this->found($project, $view);
        $command = $this->history->carryOut($project, $bench->person, static fn (Project $held): ChangeView => ChangeView::delete($held, $found));

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
            $numbers = is_array($value) ? array_values(array_filter($value, static fn (mixed $number): bool => (is_int($number) || is_float($number)) && is_finite((float) $number))) : [];
            if (count($numbers) !== 3) {
                throw new Refused('The camera could not be read; move it a little and try again.', 'facets');
            }

            return array_map(floatval(...), $numbers);
        };
        $camera = is_array($given) ? $given : [];
        $fov = $camera['fov'] ?? null;

        $tall = $camera['tall'] ?? null;

        return ['eye' => $point($camera['eye'] ?? null), 'target' => $point($camera['target'] ?? null), 'fov' => is_int($fov) || is_float($fov) ? max(1.0, min(150.0, (float) $fov)) : 45.0]
            + (is_int($tall) || is_float($tall) ? ['tall' => max(0.001, min(1e7, (float) $tall)), 'up' => $point($camera['up'] ?? [0, 0, 1])] : []);
    }

    /** Keeps the small picture that the canvas made; returns its file, empty if there was none. */
    private function picture(Request $request, Project $project): string
    {
        $given = $request->string('picture')->value();
        if ($given === '' || preg_match('~^data:image/(png|jpeg);base64,([A-Za-z0-9+/=]+)$~', $given, $found) !== 1) {
            return '';
        }
        $bytes = (string) base64_decode($found[2], true);
        if (strlen($bytes) > self::PICTURE_BYTES || \VineShelf\Formats\Gltf\Pictures::type($bytes) !== "image/$found[1]") {
            throw new Refused('The picture of the view is not a PNG or JPEG of up to '.intdiv(self::PICTURE_BYTES, 1000).' kB.', 'facets');
        }
        $file = $project->folder().'/pictures/'.hash('xxh128', $bytes).($found[1] === 'png' ? '.png' : '.jpg');
        Storage::disk('local')->put($file, $bytes);

        return $file;
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Desk> */
    private function desk(Bench $bench): \Illuminate\Database\Eloquent\Builder
    {
        return Desk::query()->where('project_id', $bench->project->id)->where('user_id', $bench->person->id);
    }
}
