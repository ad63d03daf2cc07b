<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Keys;
use App\Bench\PickHistory;
use App\Ledger\Ledger;
use App\Models\Desk;
use App\Scenes\MeshShapes;
use App\Workbench\Answer;
use App\Workbench\PickMode;
use App\Workbench\RegionRequest;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Picking\Takes;
use VineShelf\Scene\Pick;

/** The pick: objects come and go by rows, by what a rule finds, and by regions in the picture. */
final class PickController
{
    public function pick(Request $request, Bench $bench): Response
    {
        $mode = PickMode::in($request);
        $keys = Keys::in($request);
        $numbers = $keys->objects;
        $rows = $keys->heldIn($bench);
        if (preg_match('~^(\d{1,9})-(\d{1,9})$~D', $request->string('span')->value(), $span) === 1) {
            array_push($numbers, ...$this->between($bench, $request, (int) $span[1], (int) $span[2]));
        }
        if ($request->boolean('found')) {
            $rows = $rows->or(Ledger::asked($bench, $request)->hits());
        }
        $named = Pick::of(array_filter($numbers, static fn (int $number): bool => $bench->scene()->row($number) !== 0));
        $held = $bench->scene()->numberBits($rows);
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), $named, $held)));

        return Answer::to($bench, $request)->send();
    }

    /** The pick before, or the one after. */
    public function step(Request $request, Bench $bench): Response
    {
        $way = (int) $request->validate(['way' => ['required', 'in:1,-1']])['way'];
        $scene = $bench->scene();
        $pick = DeskChange::on($bench, static fn (Desk $desk): ?Pick => PickHistory::step($desk, $scene, $way));

        return Answer::to($bench, $request)
            ->saying(
                match (true) {
                    $pick !== null => number_format($pick->count()).' picked '.($way < 0 ? 'before' : 'after').'.',
                    $way < 0 => 'Nothing was picked before.',
                    default => 'Nothing was picked after.',
                },
            )
            ->send();
    }

    /** What a region in the picture catches; with "count", only how many that would be. */
    public function region(Request $request, Bench $bench): Response|JsonResponse
    {
        $asked = RegionRequest::of($request, $bench->facts()->origin());
        $mode = $request->boolean('count') ? PickMode::Replace : PickMode::in($request);
        $caught = $asked->find($bench, new MeshShapes($bench->project, $bench->scene()));
        $takes = Takes::tryFrom($request->string('take')->value()) ?? Takes::Part;
        $rows = $takes->of($bench->scene(), $caught, $bench->scene()->row(max(0, $request->integer('inside'))));
        if ($request->boolean('count')) {
            return new JsonResponse(['count' => $rows->count()]);
        }
        $numbers = $bench->scene()->numberBits($rows);
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $numbers)));
        $count = $rows->count();

        return Answer::to($bench, $request)
            ->saying(
                $count === 0
                    ? 'The region caught nothing that is open and shown.'
                    : number_format($count).' '.($count === 1 ? 'object' : 'objects')." caught{$mode->inWords()}.",
            )
            ->send();
    }

    /** @return list<int> objects in a stretch of the ledger's rows; where it holds none, those of its groups */
    private function between(Bench $bench, Request $request, int $from, int $to): array
    {
        $keys = Keys::of(
            Ledger::asked($bench, $request)
                ->lens()
                ->keys(min($from, $to), abs($to - $from) + 1),
        );

        return $keys->objects !== [] ? $keys->objects : $keys->objectsIn($bench);
    }
}
