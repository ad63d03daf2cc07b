<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Targets;
use App\Changes\FileAlong;
use App\Changes\FileObjects;
use App\Changes\History;
use App\Changes\SetLocks;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Locks\Lock;

/** Rows of the ledger, or the pick, are filed and locked. */
final class FilingController
{
    private const NO_LAYERS = 'Objects are filed under layers; a layer itself is not. Pick its objects to file them elsewhere.';

    public function __construct(private readonly History $history) {}

    /** Offers the layers that rows or the pick can be filed under. */
    public function choose(Request $request, Bench $bench): View
    {
        return view('workbench.file-under', [
            'bench' => $bench,
            'keys' => $request->string('keys')->value(),
            'count' => Targets::in($request, $bench)->objectsOnly($bench, self::NO_LAYERS)->count(),
        ]);
    }

    public function file(Request $request, Bench $bench): Response
    {
        $layer = $request->integer('layer');
        $withHeld = $request->boolean('with_held', true);
        $make = static function (Bench $held) use ($request, $layer, $withHeld): FileObjects {
            $rows = Targets::in($request, $held)->objectsOnly($held, self::NO_LAYERS);

            return new FileObjects($held, $rows, $held->layers()->get($layer), $withHeld);
        };
        $command = $this->history->carryOut($bench, $make);

        return Answer::to($bench, $request)->after($command, 'All of it is there already.')->send();
    }

    /** Under the layer at the end of a path, which is made where it is missing: "Plant / Pumps". */
    public function along(Request $request, Bench $bench): Response
    {
        $path = $request->string('name')->trim()->value();
        $withHeld = $request->boolean('with_held', true);

        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): FileAlong => new FileAlong(
                $held,
                $path,
                Targets::in($request, $held)->objectsOnly($held, self::NO_LAYERS),
                $withHeld,
            ),
        );

        return Answer::to($bench, $request)->after($command, 'All of it is there already.')->send();
    }

    public function lock(Request $request, Bench $bench): Response
    {
        $lock = Lock::from((int) $request->validate(['lock' => ['required', 'integer', 'between:0,2']])['lock']);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): SetLocks => new SetLocks($held, Targets::in($request, $held), $lock),
        );

        return Answer::to($bench, $request)
            ->after($command, 'All of it '.$lock->state().' already.')
            ->send();
    }
}
