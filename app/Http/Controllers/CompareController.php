<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Compared;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\PickMode;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Scene\Pick;

/** Two views, or one and the desk or pictures, side by side. */
final class CompareController
{
    public function show(Request $request, Bench $bench): View
    {
        $views = $bench->shelf()->inOrder();
        $first = $request->string('first')->value() ?: ($bench->view() === null ? '' : 'V'.$bench->view()->no);
        $first = $first !== '' ? $first : ($views === [] ? Compared::DESK : "V{$views[0]->no}");

        return view('workbench.compare', [
            'bench' => $bench,
            'views' => $views,
            'compared' => self::compared($bench, $first, $request->string('second')->value() ?: Compared::DESK),
        ]);
    }

    /** The canvas shows what either of them shows, by what only one or both have. */
    public function tint(Request $request, Bench $bench): Response
    {
        $compared = self::compared($bench, $request->string('first')->value(), $request->string('second')->value());
        DeskChange::on($bench, static function (Desk $desk) use ($compared): void {
            $desk->tint = ['by' => 'compare', 'seed' => 1, 'first' => $compared->first->key, 'second' => $compared->second->key];
        });

        return Answer::to($bench, $request)
            ->saying("{$compared->first->name} and {$compared->second->name} compared.")
            ->send();
    }

    public function pick(Request $request, Bench $bench): Response
    {
        $mode = PickMode::in($request);
        $which = $request->validate(['which' => ['required', 'in:first,second,other']])['which'];
        $compared = self::compared($bench, $request->string('first')->value(), $request->string('second')->value());
        $rows = $compared->rows()[$which];
        if ($rows->isEmpty()) {
            throw new Refused('There is nothing of that.', 'which');
        }
        $numbers = $bench->scene()->numberBits($rows);
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $numbers)));

        return Answer::to($bench, $request)
            ->saying(number_format($rows->count()).' '.($rows->count() === 1 ? 'object' : 'objects').' picked.')
            ->send();
    }

    /** @throws Refused */
    private static function compared(Bench $bench, string $first, string $second): Compared
    {
        return Compared::of($bench, $first, $second) ??
            throw new Refused('Compare two views, or a view with the desk or with pictures; one of them is no longer there.', 'second');
    }
}
