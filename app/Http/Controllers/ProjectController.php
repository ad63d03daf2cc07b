<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Import;
use App\Models\Project;
use App\Models\Source;
use App\Models\User;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\View\View;

final class ProjectController
{
    public function index(Request $request): View
    {
        /** @var User $person */
        $person = $request->user();
        $projects = $person->projects()->orderByDesc('projects.updated_at')->with('sources')->get();
        $pictures = DB::table('views')->whereIn('project_id', $projects->modelKeys())->where('picture', '!=', '')
            ->selectRaw('project_id, min(no) as no')->groupBy('project_id')->pluck('no', 'project_id');

        return view('projects', [
            'projects' => $projects,
            'pictures' => $pictures,
            'imports' => $person->imports()->whereIn('state', ['waiting', 'running', 'failed', 'stopped'])->latest()->limit(20)->get(),
        ]);
    }

    public function report(Project $project, Source $source): View
    {
        abort_unless($source->project_id === $project->id, 404);

        return view('report', ['project' => $project, 'source' => $source, 'report' => $source->report]);
    }

    public function update(Request $request, Project $project): RedirectResponse
    {
        $given = $request->validate(['name' => ['required', 'string', 'max:120']], ['name.required' => 'A project needs a name.', 'name.max' => 'A project name has at most 120 characters.']);
        $project->update(['name' => trim($given['name'])]);

        return redirect()->route('projects');
    }

    public function destroy(Project $project): RedirectResponse
    {
        $imports = Import::query()->where('project_id', $project->id)->pluck('key');
        $project->delete();
        Storage::disk('local')->deleteDirectory($project->folder());
        foreach ($imports as $key) {
            Storage::disk('local')->deleteDirectory("sources/$key");
        }

        return redirect()->route('projects')->with('message', "$project->name was deleted.");
    }
}
