<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Desk;
use App\Models\Project;
use App\Workbench\Answer;
use App\Workbench\Bench;
use App\Workbench\DeskSteps;
use App\Workbench\Keys;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;

/** What a person does to their own desk: set rungs, take that back, choose where new objects land. */
final class DeskController
{
    public function rung(Request $request, Project $project): Response
    {
        $given = $request->validate(['rung' => ['required', 'integer', 'between:0,5'], 'on' => ['nullable', 'in:rows,pick']]);
        $bench = Bench::of($project, WorkbenchController::person($request));
        $rung = Rung::from((int) $given['rung']);
        $keys = Keys::in($request);
        $objects = ($given['on'] ?? 'rows') === 'pick' ? $bench->pick()->numbers() : $keys->objectsIn($bench);
        $layers = array_values(array_filter($keys->layers, $bench->layers()->has(...)));
        [$objects, $locked] = $this->unlocked($bench, $objects);
        $count = count($layers) + count($objects);
        $what = count($layers) === 1 && $objects === [] ? $bench->layers()->get($layers[0])->name : trim(($layers === [] ? '' : number_format(count($layers)).' '.(count($layers) === 1 ? 'layer' : 'layers').' ')
            .($objects === [] ? '' : number_format(count($objects)).' '.(count($objects) === 1 ? 'object' : 'objects')));
        $changed = $count > 0 && DeskSteps::take($bench->desk, "{$rung->label()}: $what", static fn (Settings $desk): Settings => $desk->withLayers($layers, $rung)->withObjects($objects, $rung));
        $bench->refresh();
        $alone = $locked === 0 ? '' : ' '.number_format($locked).' locked '.($locked === 1 ? 'object was' : 'objects were').' left alone.';

        return Answer::to($bench, $request)->saying(trim(($changed ? "$what: {$rung->label()}." : '').$alone), $changed ? 'desk' : '', $locked > 0)->send();
    }

    public function undo(Request $request, Project $project): Response
    {
        return $this->turn($request, $project, undo: true);
    }

    public function redo(Request $request, Project $project): Response
    {
        return $this->turn($request, $project, undo: false);
    }

    /** Where new objects go, for this person. */
    public function landing(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $layer = $bench->layers()->get((int) $request->validate(['layer' => ['required', 'integer']])['layer']);
        $this->desk($bench)->update(['landing_layer' => $layer->number, 'revision' => $bench->desk->revision + 1]);
        $bench->refresh();

        return Answer::to($bench, $request)->saying("New objects land in $layer->name.")->send();
    }

    private function turn(Request $request, Project $project, bool $undo): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $step = $undo ? DeskSteps::undo($bench->desk) : DeskSteps::redo($bench->desk);
        $bench->refresh();
        $nothing = $undo ? 'Nothing on the desk to take back.' : 'Nothing on the desk to do again.';

        return Answer::to($bench, $request)->saying($step === null ? $nothing : ($undo ? 'Taken back: ' : 'Done again: ').$step->name.'.')->send();
    }

    /**
     * @param list<int> $numbers
     *
     * @return array{list<int>, int} those that may be changed, and how many are locked
     */
    private function unlocked(Bench $bench, array $numbers): array
    {
        $locks = $bench->inEffect()->locks();
        $open = [];
        $locked = 0;
        foreach ($numbers as $number) {
            $row = $bench->scene()->row($number);
            if ($row === 0) {
                continue;
            }
            if ($locks->at($row) === 2) {
                $locked++;
            } else {
                $open[] = $number;
            }
        }

        return [$open, $locked];
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Desk> */
    private function desk(Bench $bench): \Illuminate\Database\Eloquent\Builder
    {
        return Desk::query()->where('project_id', $bench->project->id)->where('user_id', $bench->person->id);
    }
}
