<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Landing;
use App\Bench\Targets;
use App\Changes\Command;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\DeskSteps;
use App\Workbench\RungAsked;
use App\Workbench\RungsOf;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;

/** What a person does to their own desk: set rungs, take that back, choose where new objects land. */
final class DeskController
{
    public function rung(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['rung' => ['required', RungAsked::RULE], 'on' => ['nullable', 'in:rows,pick,found']]);
        $rung = RungAsked::named((string) $given['rung']);
        $targets = Targets::in($request, $bench);
        $rungs = new RungsOf($bench, $targets, $rung);
        $before = $bench->inEffect()->rungs();
        $changed = ! $rungs->isEmpty() && DeskSteps::take($bench, $rungs->name(), $rungs->on(...));

        $held = $rungs->held($bench, $before);

        return Answer::to($bench, $request)
            ->saying(
                trim(($changed || $held !== null ? $rungs->said($bench).' ' : '').Command::lockedInWords($rungs->locked)),
                $changed ? 'desk' : '',
                $rungs->locked > 0,
            )
            ->held($held)
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

    /** Offers where new objects can land. */
    public function askLanding(Bench $bench): View
    {
        return view('workbench.landing', ['bench' => $bench, 'landing' => Landing::of($bench)]);
    }

    /** Where new objects go, for this person. */
    public function landing(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['layer' => ['required', 'integer'], 'in_new' => ['nullable', 'boolean']]);
        $layer = $bench->layers()->get((int) $given['layer']);
        DeskChange::on($bench, static function (Desk $desk) use ($layer, $request): void {
            $desk->landing_layer = $layer->number;
            if ($request->boolean('asked')) {
                $desk->lands_in_new = $request->boolean('in_new');
            }
        });
        $asWhat = Landing::of($bench)->asWhat;

        return Answer::to($bench, $request)
            ->saying('New objects land '.($asWhat === '' ? '' : "$asWhat ")."in $layer->name.", '', $asWhat !== '')
            ->send();
    }
}
