<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Files\Kept;
use App\Intake\Staging;
use App\Intake\UnsureLayers;
use App\Models\Import;
use App\Models\Project;
use App\Models\Source;
use App\Models\User;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\View\View;

final class ProjectController
{
    public function index(Request $request): View
    {
        /** @var User $person */
        $person = $request->user();
        $projects = $person->projects()->orderByDesc('projects.updated_at')->with('sources')->get();
        // A picture's address names the picture, so that another one is another address.
        $pictures = [];
        foreach ($projects->where('picture', '!=', '') as $project) {
            $pictures[$project->id] = route('projects.picture', $project).'?'.substr(md5($project->picture), 0, 8);
        }
        foreach (
            DB::table('views')
                ->whereIn('project_id', $projects->modelKeys())
                ->where('picture', '!=', '')
                ->orderByDesc('position')
                ->orderByDesc('no')
                ->get(['project_id', 'no', 'picture']) as $view
        ) {
            $address = route('views.picture', [$projects->find($view->project_id), $view->no]);
            $pictures[$view->project_id] = $address.'?'.substr(md5($view->picture), 0, 8);
        }

        return view('projects', [
            'projects' => $projects,
            'pictures' => $pictures,
            'imports' => $person
                ->imports()
                ->whereIn('state', ['waiting', 'running', 'failed', 'stopped'])
                ->latest()
                ->limit(20)
                ->get(),
        ]);
    }

    public function report(Request $request, Project $project, Source $source): View
    {
        abort_unless($source->project_id === $project->id, 404);
        $person = $request->user();
        abort_unless($person instanceof User, 401);
        $bench = Bench::of($project, $person);
        $unsure = $bench->mayChange() ? count(UnsureLayers::of($bench, $source)) : 0;

        return view('report', [
            'unsure' => $unsure,
            'project' => $project,
            'source' => $source,
            'report' => $source->report,
            'sources' => $project->sources()->where('gone', false)->orderBy('id')->get(),
            'mayChange' => $bench->mayChange(),
            'newTo' => $bench->newTo()->views(),
        ]);
    }

    public function update(Request $request, Project $project): RedirectResponse
    {
        $given = $request->validate(
            ['name' => ['required', 'string', 'max:120']],
            ['name.required' => 'A project needs a name.', 'name.max' => 'A project name has at most 120 characters.'],
        );
        $project->update(['name' => trim($given['name'])]);

        return redirect()->route('projects');
    }

    public function destroy(Project $project): RedirectResponse
    {
        $imports = Import::query()->where('project_id', $project->id)->get();
        // An import that is on its way hears that it has to stop; its files go when it does.
        Import::query()
            ->where('project_id', $project->id)
            ->update(['stop' => true]);
        $project->delete();
        Kept::disk()->deleteDirectory($project->folder());
        foreach ($imports as $import) {
            (new Staging($import))->abandon();
        }

        return redirect()
            ->route('projects')
            ->with('message', "$project->name was deleted.");
    }
}
