<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Targets;
use App\Changes\History;
use App\Changes\SetOwn;
use App\Workbench\Answer;
use App\Workbench\Details;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Own\OwnValue;

/** What is known of the pick, and what people add to it: notes, colours and properties of their own. */
final class DetailsController
{
    public function show(Bench $bench): View
    {
        return view('workbench.details', ['bench' => $bench, 'details' => $bench->pick()->count() === 0 ? null : new Details($bench)]);
    }

    /** Asks for a property of their own, or for a note. */
    public function ask(Request $request, Bench $bench): View
    {
        $property = $request->string('property')->value();
        $details = new Details($bench);

        return view('workbench.own', [
            'bench' => $bench,
            'property' => $property,
            'isNote' => $property === OwnValue::NOTE,
            'value' => match ($property) {
                OwnValue::NOTE => $details->note(),
                OwnValue::EXPORT => $details->heldBack(),
                default => $request->string('value')->value(),
            },
            'count' => Targets::pick($bench)->rows->count(),
        ]);
    }

    public function set(Request $request, Bench $bench, History $history): Response
    {
        $property = $request->string('property')->value();
        $value = $request->string('value')->value();
        $command = $history->carryOut(
            $bench,
            static fn (Bench $held): SetOwn => new SetOwn(
                $held,
                Targets::in($request, $held)->objectsOnly($held, 'Objects have properties; pick those of the layer first.'),
                $property,
                $value,
            ),
        );

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }
}
