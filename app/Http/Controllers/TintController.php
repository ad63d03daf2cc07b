<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Desk;
use App\Models\Project;
use App\Workbench\Answer;
use App\Workbench\Bench;
use App\Workbench\CanvasState;
use App\Workbench\Tinted;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Picking\Pick;
use VineShelf\Tint\TintBy;

/** The tint of a desk: what the canvas colours by, and its legend. */
final class TintController
{
    public function show(Request $request, Project $project): JsonResponse
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $tint = Tinted::of($bench);
        $legend = $tint->legend();

        return new JsonResponse([
            'by' => $tint->by->value,
            'label' => $tint->by->label(),
            'stamp' => $tint->stamp(),
            'codes' => base64_encode((string) gzdeflate(CanvasState::codesByNumber($bench, $legend->codes($bench->scene()->count())), 1)),
            'entries' => array_map(static fn (\VineShelf\Tint\LegendEntry $entry): array => ['label' => $entry->label, 'colour' => $entry->colour, 'objects' => $entry->rows->count()], $legend->entries),
        ]);
    }

    /** Tints by something else, or shuffles anew. */
    public function update(Request $request, Project $project): Response
    {
        $given = $request->validate(['by' => ['required', 'in:'.implode(',', array_column(TintBy::cases(), 'value'))], 'pick' => ['nullable', 'boolean']]);
        $bench = Bench::of($project, WorkbenchController::person($request));
        $by = TintBy::from($given['by']);
        $onlyPick = $by === TintBy::Shuffle && $request->boolean('pick') && $bench->pick()->count() > 0;
        $seed = $by === TintBy::Shuffle ? ($bench->desk->tint['seed'] ?? 0) + 1 : 1;
        $this->desk($bench)->update(['tint' => json_encode(array_filter(['by' => $by->value, 'seed' => $seed, 'pick' => $onlyPick ? base64_encode($bench->pick()->pack()) : null])), 'revision' => $bench->desk->revision + 1]);
        $bench->refresh();

        return Answer::to($bench, $request)->saying($by === TintBy::Own ? 'Own materials.' : "Tinted by {$by->value}.")->send();
    }

    /** Picks what a legend entry stands for. */
    public function pick(Request $request, Project $project): Response
    {
        $given = $request->validate(['entry' => ['required', 'integer', 'min:0'], 'mode' => ['required', 'in:replace,add,remove']]);
        $bench = Bench::of($project, WorkbenchController::person($request));
        $entry = Tinted::of($bench)->legend()->entries[(int) $given['entry']] ?? abort(404);
        $numbers = $bench->scene()->numberBits($entry->rows);
        $pick = match ($given['mode']) {
            'add' => $bench->pick()->withBits($numbers),
            'remove' => $bench->pick()->withoutBits($numbers),
            default => Pick::ofBits($numbers),
        };
        $this->desk($bench)->update(['pick' => \App\Models\Casts\Bytes::write($pick->pack()), 'revision' => $bench->desk->revision + 1]);
        $bench->refresh();

        return Answer::to($bench, $request)->send();
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Desk> */
    private function desk(Bench $bench): \Illuminate\Database\Eloquent\Builder
    {
        return Desk::query()->where('project_id', $bench->project->id)->where('user_id', $bench->person->id);
    }
}
