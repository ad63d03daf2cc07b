<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Landing;
use App\Bench\Refused;
use App\Changes\History;
use App\Changes\MatchLayers;
use App\Files\Kept;
use App\Intake\Original;
use App\Intake\UnsureLayers;
use App\Models\Project;
use App\Models\Source;
use App\Models\View as SavedView;
use App\Workbench\Answer;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use VineShelf\Views\Applied;

/** The files that a project is made of: another one is added, and each as it came is given out or removed. */
final class SourceController
{
    /** Asks what is to become of a file that was dropped on the workbench, and says what taking it in will do. */
    public function ask(Request $request, Bench $bench): View
    {
        $views = array_filter($bench->shelf()->inOrder(), static fn (SavedView $view): bool => $view->keepsRungs());

        return view('workbench.add-file', [
            'bench' => $bench,
            'name' => mb_strimwidth($request->string('name')->value(), 0, 200, '…'),
            'landing' => Landing::of($bench),
            'hide' => count(array_filter($views, static fn (SavedView $view): bool => $view->newcomers === Applied::HIDDEN)),
            'show' => count(array_filter($views, static fn (SavedView $view): bool => $view->newcomers === Applied::FULL)),
            'views' => count($views),
        ]);
    }

    /** The file as it came. */
    public function original(Project $project, Source $source): BinaryFileResponse
    {
        $this->check($project, $source);
        abort_if($source->original === '' || ! Kept::disk()->exists($source->original), 404);

        return response()->download(Kept::disk()->path($source->original), Original::nameOf($source));
    }

    /** The file as it came is kept no longer; what was taken in from it stays. */
    public function removeOriginal(Project $project, Source $source): RedirectResponse
    {
        $this->check($project, $source);
        Original::remove($source);

        return redirect()->route('projects.report', [$project, $source]);
    }

    /** Asks which layers are meant by names of the file that several here have. */
    public function askUnsure(Bench $bench, Source $source): View
    {
        $this->check($bench->project, $source);

        return view('workbench.unsure-layers', ['bench' => $bench, 'source' => $source, 'unsure' => UnsureLayers::of($bench, $source)]);
    }

    /** What came in layers of their own goes into those that are meant. */
    public function match(Request $request, Bench $bench, Source $source, History $history): Response
    {
        $this->check($bench->project, $source);
        $command = $history->carryOut($bench, static function (Bench $held) use ($request, $source): MatchLayers {
            $into = [];
            foreach (UnsureLayers::of($held, $source) as [$layer, $among]) {
                $meant = $request->integer("layer-$layer->number");
                if ($meant !== 0 && ! isset($among[$meant])) {
                    throw new Refused('That layer is not one of them.', "layer-$layer->number");
                }
                if ($meant !== 0) {
                    $into[$layer->number] = $meant;
                }
            }

            return new MatchLayers($held, $into);
        });

        return Answer::to($bench, $request)->after($command, 'They stay layers of their own.')->send();
    }

    private function check(Project $project, Source $source): void
    {
        abort_unless($source->project_id === $project->id && ! $source->gone, 404);
    }
}
