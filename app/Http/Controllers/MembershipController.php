<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Refused;
use App\Changes\ChangeMemberships;
use App\Changes\History;
use App\Ledger\Ledger;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Scene\Bits;

/** The ledger widened over tags and sets: which ones, and who is in. */
final class MembershipController
{
    private const MOST_COLUMNS = 200;

    /** Asks which tags and sets are to be columns. */
    public function ask(Bench $bench): View
    {
        return view('workbench.widen', ['bench' => $bench, 'over' => $bench->arrangement()->over]);
    }

    /** Rows of the ledger come to tags and sets, or leave them: those that are named, and a stretch of rows. */
    public function change(Request $request, Bench $bench, History $history): Response
    {
        $columns = array_values(
            array_filter(explode(',', $request->string('columns')->value()), static fn (string $key): bool => $key !== ''),
        );
        if ($columns === [] || count($columns) > self::MOST_COLUMNS) {
            throw new Refused('Say which tags and sets are meant.', 'columns');
        }
        $on = $request->boolean('on');
        $command = $history->carryOut(
            $bench,
            fn (Bench $held): ChangeMemberships => new ChangeMemberships($held, $this->rows($request, $held), $columns, $on),
        );

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** @throws Refused when no row is there */
    private function rows(Request $request, Bench $bench): Bits
    {
        $keys = Keys::in($request);
        if (preg_match('~^(\d{1,9})-(\d{1,9})$~D', $request->string('span')->value(), $span) === 1) {
            [$from, $to] = [min((int) $span[1], (int) $span[2]), max((int) $span[1], (int) $span[2])];
            $keys = Keys::of(
                Ledger::asked($bench, $request)
                    ->lens()
                    ->keys($from, $to - $from + 1),
            );
        }
        $scene = $bench->scene();
        $rows = $keys->heldIn($bench)->or(Bits::ofRows($scene->count(), $scene->rowsOf($keys->objects)));

        return $rows->isEmpty() ? throw new Refused('There are no objects in these rows.', 'keys') : $rows;
    }
}
