<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\LedgerWindows;
use App\Models\Import;
use App\Workbench\Answer;
use App\Workbench\Budget;
use App\Workbench\Surfaces;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;

/** The workbench page, and what other people changed meanwhile. */
final class WorkbenchController
{
    public function show(Request $request, Bench $bench): View
    {
        $project = $bench->project;
        $bench->window = LedgerWindows::open($bench->desk, $bench->window, LedgerWindows::named($request->query('like')));
        if (! $request->has('words')) {
            $request->merge(['words' => LedgerWindows::line($bench->desk, $bench->window)]);
        }

        return view(
            'workbench.page',
            Answer::parts($bench, $request) + [
                'project' => $project,
                'window' => $bench->window,
                // The ledger by itself, in a window beside the one with the canvas.
                'isAlone' => $request->string('window')->value() === 'ledger',
                'sources' => $project->sources()->where('gone', false)->get(),
                // Files of the person that are on their way into the project.
                'intakes' => Import::query()
                    ->where('project_id', $project->id)
                    ->where('user_id', $bench->person->id)
                    ->whereIn('state', ['waiting', 'running'])
                    ->get()
                    ->map(static fn (Import $import): string => route('imports.show', $import))
                    ->implode(' '),
                'materials' => Surfaces::of($project),
                'budget' => json_encode(Budget::most()),
            ],
        );
    }

    /** Answers with everything when the project or the desk has moved on since the revisions that the page knows. */
    public function pulse(Request $request, Bench $bench): Response
    {
        if ($bench->project->revision === $request->integer('revision') && $bench->desk->revision === $request->integer('desk')) {
            return response()->noContent();
        }

        return Answer::to($bench, $request)->send();
    }
}
