<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\History;
use App\Changes\SetOutput;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\HeldDown;
use App\Workbench\InPicturesOf;
use App\Workbench\PickMode;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Output\Output;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Turn;
use VineShelf\Scene\Pick;

/** What pictures show: set for rows or the pick, looked at instead of the desk, and compared with it. */
final class OutputController
{
    public const DIFFERING = [
        'picture' => 'hidden on the desk, but in the picture',
        'desk' => 'shown on the desk, but not in the picture',
        'other' => 'drawn otherwise in the picture',
    ];

    /** Offers what pictures can show of rows or of the pick. */
    public function ask(Request $request, Bench $bench): View
    {
        return view('workbench.output', [
            'bench' => $bench,
            'keys' => $request->string('keys')->value(),
            'of' => new InPicturesOf($bench, Targets::in($request, $bench)),
        ]);
    }

    public function set(Request $request, Bench $bench, History $history): Response
    {
        $given = $request->validate([
            'output' => [
                'required',
                'in:none,hide,back,'.implode(',', array_map(static fn (Output $case): string => $case->word(), Output::cases())),
            ],
            'on' => ['nullable', 'in:rows,pick,found'],
            'note' => ['nullable', 'string'],
        ]);
        $command = $history->carryOut(
            $bench,
            static fn (Bench $held): SetOutput => new SetOutput(
                $held,
                Targets::in($request, $held),
                Turn::tryFrom((string) $given['output']) ?? Output::named((string) $given['output']),
                $given['note'] ?? '',
            ),
        );

        return Answer::to($bench, $request)
            ->after($command, 'It is so already.')
            ->held(self::held($bench, (string) $given['output'], Targets::in($request, $bench)))
            ->send();
    }

    /** What still holds what was to be raised in pictures. */
    private static function held(Bench $bench, string $output, Targets $targets): ?HeldDown
    {
        $wanted = match (true) {
            $output === 'back' => Rung::Box,
            $output === (string) Rung::Full->value => Rung::Full,
            default => null,
        };

        return $wanted === null ? null : HeldDown::below($bench, $bench->outputs()->side(), $targets->reached($bench), $wanted);
    }

    /** Turns the canvas to the desk or the output, and says of which view. */
    public function show(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['side' => ['nullable', 'in:desk,output'], 'of' => ['nullable', 'in:view,none']]);
        DeskChange::on($bench, static function (Desk $desk) use ($given): void {
            $desk->shows_output = isset($given['side']) ? $given['side'] === 'output' : $desk->shows_output;
            $desk->output_of_view = isset($given['of']) ? $given['of'] === 'view' : $desk->output_of_view;
        });
        $view = $bench->outputs()->view();
        $pictures = $view === null ? 'pictures of no view' : "pictures of view $view->name";

        return Answer::to($bench, $request)
            ->saying(isset($given['side']) ? '' : "Differences are with $pictures.")
            ->send();
    }

    /** Picks what the desk and the picture show differently. */
    public function differing(Request $request, Bench $bench): Response
    {
        $mode = PickMode::in($request);
        $given = $request->validate(['which' => ['required', 'in:all,'.implode(',', array_keys(self::DIFFERING))]]);
        $rows = $bench->outputs()->difference()->rows();
        $found = $given['which'] === 'all' ? $rows['picture']->or($rows['desk'])->or($rows['other']) : $rows[$given['which']];
        if ($found->isEmpty()) {
            throw new Refused(
                $given['which'] === 'all'
                    ? 'The desk and the picture show the same.'
                    : 'Nothing is '.self::DIFFERING[$given['which']].'.',
                'which',
            );
        }
        $numbers = $bench->scene()->numberBits($found);
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $numbers)));

        return Answer::to($bench, $request)
            ->saying(number_format($found->count()).' '.($found->count() === 1 ? 'object' : 'objects').' picked.')
            ->send();
    }
}
