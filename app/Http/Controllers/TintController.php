<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\CanvasState;
use App\Workbench\PickMode;
use App\Workbench\Tinted;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Scene\Pick;
use VineShelf\Tint\EdgeLines;
use VineShelf\Tint\TintBy;

/** The tint of a desk: what the canvas colours by, and its legend. */
final class TintController
{
    public function show(Bench $bench): JsonResponse
    {
        $tint = Tinted::of($bench);
        $legend = $tint->legend();

        return new JsonResponse([
            'by' => $tint->by->value,
            'label' => $tint->by->label(),
            'stamp' => $tint->stamp(),
            'codes' => base64_encode((string) gzdeflate(CanvasState::codesByNumber($bench, $legend->codes()), 1)),
            'entries' => array_map(
                static fn (\VineShelf\Tint\LegendEntry $entry): array => [
                    'label' => $entry->label,
                    'colour' => $entry->colour,
                    'objects' => $entry->objects,
                ],
                $legend->entries,
            ),
        ]);
    }

    /** How edges are drawn: colour and line of each entry, and which object has which. */
    public function edges(Bench $bench): JsonResponse
    {
        $lines = EdgeLines::of($bench->scene(), $bench->organizers());

        return new JsonResponse([
            'codes' => base64_encode((string) gzdeflate(CanvasState::codesByNumber($bench, $lines->codes), 1)),
            'entries' => array_map(static fn (array $entry): array => ['colour' => $entry[0], 'line' => $entry[1]->value], $lines->entries),
        ]);
    }

    /** How the canvas draws edges. */
    public function turnEdges(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['edges' => ['required', 'in:'.implode(',', Desk::EDGES)]]);
        DeskChange::on($bench, static function (Desk $desk) use ($given): void {
            $desk->edges = $given['edges'];
        });
        $said = [
            'own' => 'Edges as layers and tags have them.',
            'over' => 'Edges over shading.',
            'none' => 'No edges.',
            'only' => 'Edges only.',
        ];

        return Answer::to($bench, $request)->saying($said[$given['edges']])->send();
    }

    /** Tints by something else, or shuffles anew. */
    public function update(Request $request, Bench $bench): Response
    {
        $given = $request->validate([
            // Comparing takes two states, and is asked for where they are chosen.
            'by' => ['required', 'in:'.implode(',', array_diff(array_column(TintBy::cases(), 'value'), [TintBy::Compare->value]))],
            'pick' => ['nullable', 'boolean'],
        ]);
        $by = TintBy::from($given['by']);
        $onlyPick = $by === TintBy::Shuffle && $request->boolean('pick');
        DeskChange::on($bench, static function (Desk $desk) use ($by, $onlyPick): void {
            $pick = $onlyPick && $desk->pick()->count() > 0 ? base64_encode($desk->pick()->pack()) : null;
            $desk->tint = array_filter([
                'by' => $by->value,
                'seed' => $by === TintBy::Shuffle ? ($desk->tint['seed'] ?? 0) + 1 : 1,
                'pick' => $pick,
            ]);
        });

        return Answer::to($bench, $request)
            ->saying($by === TintBy::Own ? 'Own materials.' : "Tinted {$by->inWords()}.")
            ->send();
    }

    /** Picks what a legend entry stands for. */
    public function pick(Request $request, Bench $bench): Response
    {
        $mode = PickMode::in($request);
        $given = $request->validate(['entry' => ['required', 'integer', 'min:0']]);
        $legend = Tinted::of($bench)->legend();
        $entry = (int) $given['entry'];
        if (! isset($legend->entries[$entry])) {
            throw new Refused('That entry is no longer in the legend.', 'entry');
        }
        $numbers = $bench->scene()->numberBits($legend->rowsOf($entry));
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $numbers)));

        return Answer::to($bench, $request)->send();
    }
}
