<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Landing;
use App\Files\Kept;
use App\Intake\Original;
use App\Models\Project;
use App\Models\Source;
use App\Models\View as SavedView;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
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

    private function check(Project $project, Source $source): void
    {
        abort_unless($source->project_id === $project->id && ! $source->gone, 404);
    }
}
