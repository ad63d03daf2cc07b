<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Changes\ChangeViews;
use App\Changes\History;
use App\Changes\KeepView;
use App\Changes\Lowered;
use App\Models\Desk;
use App\Models\Project;
use App\Models\View as SavedView;
use App\Workbench\Answer;
use App\Workbench\FromView;
use App\Workbench\Sight;
use App\Workbench\ViewOnDesk;
use App\Workbench\ViewPicture;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Views\Facet;

/** One view: it is kept, applied, updated, named and noted. */
final class ViewController
{
    public function __construct(private readonly History $history) {}

    /** Asks what the new view is to keep. */
    public function create(Bench $bench): View
    {
        return view('workbench.keep-view', [
            'bench' => $bench,
            'name' => 'View '.$bench->project->next_view,
            'lowered' => Lowered::onDesk($bench),
        ]);
    }

    public function store(Request $request, Bench $bench): Response
    {
        $picture = ViewPicture::of($request, $bench->project, 'facets');
        $facets = self::kept($request);
        $camera = in_array(Facet::Camera, $facets, true) ? Sight::in($request, 'facets') : null;
        $folder = $request->integer('folder');
        $meant = self::meantIn($request);
        $chosen = Lowered::onDesk($bench)->chosen($meant);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): KeepView => new KeepView(
                $held,
                $request->string('name')->trim()->value(),
                $facets,
                $camera,
                $picture?->file() ?? '',
                note: $request->string('note')->value(),
                folder: isset($held->shelf()->folders[$folder]) ? $folder : 0,
                meant: $meant,
            ),
        );
        DeskChange::on($bench, static function (Desk $desk) use ($command, $facets, $chosen): void {
            $desk->view_no = $command->number;
            $desk->keeping = [
                'facets' => array_column($facets, 'value'),
                'meant' => $chosen + ($desk->keeping['meant'] ?? []),
            ];
        });

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['shelf' => "V$command->number"])
            ->send();
    }

    public function apply(Request $request, Bench $bench, int $view): Response
    {
        $found = $this->found($bench->project, $view);
        $changed = ViewOnDesk::apply($bench, $found);

        return Answer::to($bench, $request)
            ->saying("$found->name applied.", $changed ? 'desk' : '')
            ->with(
                array_filter([
                    'camera' => $found->camera,
                    'hold' => $found->camera_held,
                    'shelf' => "V$view",
                    'portray' => self::portrayed($bench, $found),
                ]),
            )
            ->send();
    }

    /** Shows what updating the view from the desk would change. */
    public function preview(Bench $bench, int $view): View
    {
        $found = $this->found($bench->project, $view);

        return view('workbench.update-view', [
            'bench' => $bench,
            'view' => $found,
            'from' => new FromView($bench, $found),
            'lowered' => $found->keepsRungs() ? Lowered::onDesk($bench) : null,
        ]);
    }

    public function update(Request $request, Bench $bench, int $view): Response
    {
        $picture = ViewPicture::of($request, $bench->project, 'facets');
        $camera = $request->string('camera')->value() === '' ? null : Sight::in($request, 'facets');
        $meant = self::meantIn($request);
        $make = static fn (Bench $held): ChangeViews => match (true) {
            $request->has('name') => ChangeViews::rename($held, $view, $request->string('name')->value()),
            $request->has('note') => ChangeViews::note($held, $view, $request->string('note')->value()),
            $request->has('newcomers') => ChangeViews::newcomers($held, [$view], $request->integer('newcomers')),
            $request->has('reviewed') => ChangeViews::review($held, [$view]),
            default => ChangeViews::update($held, $view, $camera, $request->boolean('keep_camera'), $picture?->file(), $meant),
        };
        $command = $this->history->carryOut($bench, $make);

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** The canvas shows the view: that is its picture, where it has none or an old one. It is no change of what the view keeps. */
    public function portray(Request $request, Bench $bench, int $view): Response
    {
        $found = $this->found($bench->project, $view);
        $picture = ViewPicture::of($request, $bench->project, 'picture') ?? throw new Refused('A picture is a PNG or JPEG.', 'picture');
        if ($found->isPictureOld()) {
            $found->update(['picture' => $picture->file(), 'pictured' => $bench->project->revision]);
        }

        return Answer::to($bench, $request)->send();
    }

    /** Asks what pictures of the view take over of what it keeps. */
    public function askMeant(Bench $bench, int $view): View
    {
        $found = $this->found($bench->project, $view);

        return view('workbench.view-meant', [
            'bench' => $bench,
            'view' => $found,
            'lowered' => $found->keepsRungs() ? Lowered::inView($bench, $found) : null,
        ]);
    }

    public function meant(Request $request, Bench $bench, int $view): Response
    {
        $meant = self::meantIn($request);
        $command = $this->history->carryOut($bench, static fn (Bench $held): ChangeViews => ChangeViews::meant($held, $view, $meant));

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** @return array<string, bool> whether pictures take it over, by id of a line: "meant_L5" is 0 or 1 */
    private static function meantIn(Request $request): array
    {
        $meant = [];
        foreach ($request->input() as $name => $value) {
            if (preg_match('~^meant_([LTFOW]\d{1,9})$~D', (string) $name, $found) === 1) {
                $meant[$found[1]] = $value === '1' || $value === 1;
            }
        }

        return $meant;
    }

    public function destroy(Request $request, Bench $bench, int $view): Response
    {
        $command = $this->history->carryOut($bench, static fn (Bench $held): ChangeViews => ChangeViews::delete($held, [$view]));

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    /** Number of the view where the canvas is to send a picture of it, 0 for none. */
    private static function portrayed(Bench $bench, SavedView $view): int
    {
        return $bench->mayChange() && ! $bench->desk->shows_output && $view->isPictureOld() ? $view->no : 0;
    }

    private function found(Project $project, int $view): SavedView
    {
        return $project->views()->where('no', $view)->firstOrFail();
    }

    /** @return list<Facet> those that are ticked: "keep_camera", "keep_rungs" … */
    private static function kept(Request $request): array
    {
        return array_values(array_filter(Facet::cases(), static fn (Facet $facet): bool => $request->boolean("keep_$facet->value")));
    }
}
