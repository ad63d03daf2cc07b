<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Targets;
use App\Changes\Command;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\DeskSteps;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Rungs\OneAtATime;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;

/** What a person does to their own desk: set rungs, take that back, choose where new objects land. */
final class DeskController
{
    public function rung(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['rung' => ['required', 'integer', 'between:0,5'], 'on' => ['nullable', 'in:rows,pick']]);
        $rung = Rung::from((int) $given['rung']);
        $targets = ($given['on'] ?? 'rows') === 'pick' ? Targets::pick($bench) : Targets::in($request, $bench);
        $held = $targets->rows->and($bench->inEffect()->locked());
        $locked = $held->count();
        $targets = $targets->without($held);
        $what = $targets->inWords($bench);
        $numbers = $bench->scene()->numberBits($targets->rows);
        $organizers = $bench->organizers();
        $set = static fn (Settings $desk): Settings => OneAtATime::shown(
            $desk
                ->withLayers($targets->layers, $rung)
                ->withTags($targets->tags, $rung)
                ->withFolders($targets->folders, $rung)
                ->withObjects($numbers, $rung),
            $organizers,
            $targets->layers,
            $targets->tags,
            $targets->folders,
        );
        $changed = ! $targets->isEmpty() && DeskSteps::take($bench, "{$rung->label()}: $what", $set);

        return Answer::to($bench, $request)
            ->saying(
                trim(($changed ? "$what: {$rung->label()}. " : '').Command::lockedInWords($locked)),
                $changed ? 'desk' : '',
                $locked > 0,
            )
            ->send();
    }

    public function undo(Request $request, Bench $bench): Response
    {
        $step = DeskSteps::undo($bench);

        return Answer::to($bench, $request)
            ->saying($step === null ? 'Nothing on the desk to take back.' : "Taken back: $step->name.")
            ->send();
    }

    public function redo(Request $request, Bench $bench): Response
    {
        $step = DeskSteps::redo($bench);

        return Answer::to($bench, $request)
            ->saying($step === null ? 'Nothing on the desk to do again.' : "Done again: $step->name.")
            ->send();
    }

    /** Where new objects go, for this person. */
    public function landing(Request $request, Bench $bench): Response
    {
        $layer = $bench->layers()->get((int) $request->validate(['layer' => ['required', 'integer']])['layer']);
        DeskChange::on($bench, static function (Desk $desk) use ($layer): void {
            $desk->landing_layer = $layer->number;
        });

        return Answer::to($bench, $request)
            ->saying("New objects land in $layer->name.")
            ->send();
    }
}
