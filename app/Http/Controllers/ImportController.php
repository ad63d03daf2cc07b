<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Refused;
use App\Files\UnableToKeep;
use App\Intake\Bundle;
use App\Intake\Room;
use App\Intake\Staging;
use App\Intake\UnsureLayers;
use App\Jobs\Sorted;
use App\Jobs\Uploads;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Project;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\Rule;
use Illuminate\View\View;
use VineShelf\Layers\SortBy;

final class ImportController
{
    public function store(Request $request, Uploads $uploads): JsonResponse
    {
        $given = $request->validate(
            [
                'file' => ['required_without:parts', 'file'],
                'parts' => ['nullable', 'array', 'max:10000'],
                'parts.*' => ['file'],
                'sort_by' => ['required', Rule::enum(SortBy::class)],
                'property' => ['nullable', 'string', 'max:100'],
                'tags_from' => ['nullable', 'string', 'max:100'],
                'separator' => ['nullable', 'string', 'max:10'],
                'project' => ['nullable', 'string', 'max:40'],
                'landing' => ['nullable', 'integer', 'min:0', 'max:999999999'],
            ],
            [
                'parts.*' => 'One of the files could not be sent.',
                'file.*' =>
                    'Choose a .glb or .gltf file, or a zip that holds a .gltf with its parts. The server takes up to '.
                    ini_get('upload_max_filesize').
                    '.',
            ],
        );
        /** @var User $person */
        $person = $request->user();
        $project = null;
        if (($given['project'] ?? null) !== null) {
            $project = Project::query()->where('key', $given['project'])->firstOrFail();
            Gate::authorize('change', $project);
        }
        try {
            [$path, $name] = self::given($given['file'] ?? null, $given['parts'] ?? []);
            $import = $uploads->receive(
                $person,
                $project,
                $path,
                $name,
                new Sorted(
                    SortBy::from($given['sort_by']),
                    (string) ($given['property'] ?? ''),
                    (string) ($given['tags_from'] ?? ''),
                    (string) ($given['separator'] ?? ''),
                ),
                (int) ($given['landing'] ?? 0),
            );
        } catch (Refused | UnableToKeep $full) {
            return new JsonResponse(['errors' => ['file' => [$full->getMessage()]]], $full instanceof Refused ? 422 : 507);
        }

        return new JsonResponse(['import' => $import->key, 'page' => route('imports.show', $import)]);
    }

    /**
     * @param array<array-key, UploadedFile> $parts a .gltf and the files beside it, by the paths that the browser gives
     *
     * @return array{string, string} where the file lies, and what it is called
     *
     * @throws Refused
     */
    private static function given(?UploadedFile $file, array $parts): array
    {
        $files = [];
        foreach ($parts as $part) {
            $path = ltrim(str_replace('\\', '/', $part->getClientOriginalPath()), '/');
            if (in_array('..', explode('/', $path), true)) {
                throw new Refused("\"$path\" climbs out of its folder.", 'file');
            }
            $files[$path] = $part->getRealPath() ?: '';
        }
        $name = $file?->getClientOriginalName() ?? basename((string) current(preg_grep('~\.gltf$~i', array_keys($files)) ?: ['']));
        if ($files !== []) {
            return [Bundle::of($files), $name];
        }
        if ($file === null || preg_match('~\.(glb|gltf|zip)$~i', $name) !== 1) {
            throw new Refused("\"$name\" is not a .glb, .gltf or .zip file.", 'file');
        }

        return [$file->getRealPath() ?: '', $name];
    }

    /** Says whether there is room for a file before it is sent. */
    public function room(Request $request): JsonResponse
    {
        $given = $request->validate(['bytes' => ['required', 'integer', 'min:0', 'max:1000000000000']]);
        /** @var User $person */
        $person = $request->user();
        try {
            Room::check($person, (int) $given['bytes']);
        } catch (Refused $full) {
            return new JsonResponse(['errors' => ['file' => [$full->getMessage()]]], 422);
        }

        return new JsonResponse(['room' => true]);
    }

    public function show(Request $request, Import $import): View|RedirectResponse|Response|JsonResponse
    {
        if ($request->expectsJson()) {
            return new JsonResponse(self::state($import));
        }

        if ($import->state === ImportState::Done && $import->project !== null) {
            $report = route('projects.report', [$import->project, $import->source_id]);

            return $request->hasHeader('HX-Request') ? response('', 200, ['HX-Redirect' => $report]) : redirect()->to($report);
        }

        return $request->hasHeader('HX-Request')
            ? response()->view('partials.import', ['import' => $import])
            : view('import', ['import' => $import]);
    }

    /** @return array{name: string, state: string, percent: int, says: string, objects: int, error: string, unsure: string|null,
     *     report: string|null} */
    private static function state(Import $import): array
    {
        $isIn = $import->state === ImportState::Done && $import->project !== null;

        return [
            'name' => $import->file_name,
            'state' => $import->state->value,
            'percent' => $import->percent(),
            'says' => $import->says(),
            'objects' => $import->objects,
            'error' => $import->error,
            'unsure' => $isIn ? UnsureLayers::address($import) : null,
            'report' => $isIn ? route('projects.report', [$import->project, $import->source_id]) : null,
        ];
    }

    public function stop(Import $import): View
    {
        // What waits is over at once; what runs hears of it.
        $stopped = Import::query()
            ->whereKey($import->id)
            ->where('state', ImportState::Waiting->value)
            ->update(['stop' => true, 'state' => ImportState::Stopped->value]);
        if ($stopped === 1) {
            (new Staging($import))->abandon();
        } else {
            Import::query()
                ->whereKey($import->id)
                ->update(['stop' => true]);
        }
        $import->refresh();

        return view('partials.import', ['import' => $import]);
    }

    public function destroy(Import $import): RedirectResponse
    {
        abort_unless($import->isOver(), 409);
        $import->delete();

        return redirect()->route('projects');
    }
}
