<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Intake\Uploads;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Project;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\Rule;
use Illuminate\View\View;
use VineShelf\Layers\SortBy;

final class ImportController
{
    public function store(Request $request, Uploads $uploads): JsonResponse
    {
        $given = $request->validate([
            'file' => ['required', 'file'],
            'sort_by' => ['required', Rule::enum(SortBy::class)],
            'property' => ['nullable', 'string', 'max:100'],
            'project' => ['nullable', 'string', 'max:40'],
        ], ['file.*' => 'Choose a .glb or .gltf file, or a zip that holds a .gltf with its parts. The server takes up to '.ini_get('upload_max_filesize').'.']);
        /** @var User $person */
        $person = $request->user();
        $project = null;
        if (($given['project'] ?? null) !== null) {
            $project = Project::query()->where('key', $given['project'])->firstOrFail();
            Gate::authorize('change', $project);
        }
        /** @var \Illuminate\Http\UploadedFile $file */
        $file = $given['file'];
        $name = $file->getClientOriginalName();
        if (preg_match('~\.(glb|gltf|zip)$~i', $name) !== 1) {
            return new JsonResponse(['errors' => ['file' => ["\"$name\" is not a .glb, .gltf or .zip file."]]], 422);
        }
        $import = $uploads->receive($person, $project, $file->getRealPath() ?: '', $name, SortBy::from($given['sort_by']), (string) ($given['property'] ?? ''));

        return new JsonResponse(['import' => $import->key, 'page' => route('imports.show', $import)]);
    }

    public function show(Request $request, Import $import): View|RedirectResponse|Response
    {
        if ($import->state === ImportState::Done && $import->project !== null) {
            $report = route('projects.report', [$import->project, $import->source_id]);

            return $request->hasHeader('HX-Request') ? response('', 200, ['HX-Redirect' => $report]) : redirect()->to($report);
        }

        return $request->hasHeader('HX-Request') ? response()->view('partials.import', ['import' => $import]) : view('import', ['import' => $import]);
    }

    public function stop(Import $import): View
    {
        $import->update(['stop' => true]);
        if ($import->state === ImportState::Waiting) {
            $import->update(['state' => ImportState::Stopped]);
        }

        return view('partials.import', ['import' => $import]);
    }

    public function destroy(Import $import): RedirectResponse
    {
        abort_unless($import->isOver(), 409);
        $import->delete();

        return redirect()->route('projects');
    }
}
