<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Groups;
use App\Bench\Refused;
use App\Changes\History;
use App\Changes\HoldBackSource;
use App\Exporting\Exporting;
use App\Jobs\ExportParts;
use App\Ledger\Ledger;
use App\Models\Export;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\View\View;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Scene\Relatives;

/** Parts of a project as files: asks what is wanted, has it written in the queue, and hands it over. */
final class ExportController
{
    public function ask(Request $request, Bench $bench): View
    {
        return view('workbench.export', [
            'bench' => $bench,
            'of' => $request->string('of')->value(),
            'picked' => $bench->pick()->count(),
            'rule' => Ledger::asked($bench, $request)->words,
            'views' => $bench->project->views()->get(['no', 'project_id', 'name', 'position']),
            'heldBack' => Exporting::heldBack($bench)->count(),
        ]);
    }

    /** Asks why exports leave out what came in a file. */
    public function askHoldBack(Bench $bench, int $source): View
    {
        $file = $bench->project->sources()->where('gone', false)->findOrFail($source);

        return view('workbench.hold-back', [
            'address' => route('sources.holdBack', [$bench->project, $file->id]),
            'method' => 'post',
            'field' => 'reason',
            'what' => "what came in $file->name",
            'reason' => $file->held_back,
        ]);
    }

    public function holdBack(Request $request, Bench $bench, History $history, int $source): Response
    {
        $command = $history->carryOut(
            $bench,
            static fn (Bench $held): HoldBackSource => new HoldBackSource($held, $source, $request->string('reason')->value()),
        );

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    public function store(Request $request, Bench $bench): View
    {
        $given = $request->validate([
            'of' => ['required', 'string', 'max:40', 'regex:~^(pick|hits|all|[LTEF]\d{1,9})$~D'],
            'side' => ['required', 'in:desk,output'],
            'view' => ['nullable', 'integer', 'min:0', 'max:999999999'],
            'quantized' => ['nullable', 'boolean'],
            'compressed' => ['nullable', 'boolean'],
        ]);
        $wanted = $this->rows($request, $bench, (string) $given['of']);
        $rows = Relatives::within($bench->scene(), $wanted);
        if ($rows->isEmpty()) {
            throw new Refused('There is nothing in that.', 'of');
        }
        $asked = [
            'of' => (string) $given['of'],
            'rows' => base64_encode(Members::pack($bench->scene()->numberBits($rows))),
            'count' => $wanted->count(),
            'held' => $rows->count() - $wanted->count(),
            'side' => (string) $given['side'],
            'view' => (int) ($given['view'] ?? 0),
            'quantized' => $request->boolean('quantized'),
            'compressed' => $request->boolean('compressed'),
        ];
        $name = Str::limit((string) preg_replace('~[^\pL\pN ._-]+~u', ' ', $bench->project->name), 80, '').'.glb';
        // The row and its job come together or not at all.
        $export = DB::transaction(static function () use ($bench, $asked, $name): Export {
            $export = Export::query()->create([
                'key' => Str::lower(Str::random(20)),
                'project_id' => $bench->project->id,
                'user_id' => $bench->person->id,
                'asked' => $asked,
                'file_name' => $name,
            ]);
            ExportParts::dispatch($export->id);

            return $export;
        });

        return view('workbench.exported', ['bench' => $bench, 'export' => $export]);
    }

    public function show(Bench $bench, string $export): View
    {
        return view('workbench.exported', ['bench' => $bench, 'export' => self::own($bench, $export)]);
    }

    public function stop(Bench $bench, string $export): View
    {
        $own = self::own($bench, $export);
        $own->update(['stop' => true] + ($own->state === 'waiting' ? ['state' => 'stopped', 'says' => 'Stopped.'] : []));

        return view('workbench.exported', ['bench' => $bench, 'export' => $own]);
    }

    public function file(Bench $bench, string $export): StreamedResponse
    {
        $own = self::own($bench, $export);
        abort_unless($own->state === 'done' && Storage::disk('local')->exists($own->file()), 404);

        return Storage::disk('local')->download($own->file(), $own->file_name, ['Content-Type' => 'model/gltf-binary']);
    }

    /** One that the person asked for themself: nobody else has to know of it. */
    private static function own(Bench $bench, string $key): Export
    {
        return Export::query()
            ->where('project_id', $bench->project->id)
            ->where('user_id', $bench->person->id)
            ->where('key', $key)
            ->firstOrFail();
    }

    /** @throws Refused */
    private function rows(Request $request, Bench $bench, string $of): Bits
    {
        if (in_array($of, ['pick', 'hits', 'all'], true)) {
            return match ($of) {
                'pick' => $bench->pickedBits(),
                'hits' => Ledger::asked($bench, $request)->hits(),
                default => Bits::all($bench->scene()->count()),
            };
        }
        $number = (int) substr($of, 1);
        if ($of[0] === 'L') {
            if (! $bench->layers()->has($number)) {
                throw new Refused('That layer is no longer there.', 'of');
            }
            $rows = Bits::none($bench->scene()->count());
            foreach ($bench->layers()->withNested($number) as $layer) {
                $rows = $rows->or($bench->contents()->rows($layer));
            }

            return $rows;
        }
        $groups = (new Groups($bench))->allNamed([$of]);

        return $groups === [] ? throw new Refused('That is no longer there.', 'of') : $groups[0]->rows();
    }
}
