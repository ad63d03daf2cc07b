<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Changes\History;
use App\Changes\Hold;
use App\Changes\Log;
use App\Changes\Turned;
use App\Models\Desk;
use App\Models\User;
use App\Workbench\Answer;
use App\Workbench\PickMode;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\View\View;
use VineShelf\Scene\Pick;

/** Changes are taken back and done again: the one that the button names, or else it says what happened to it. */
final class HistoryController
{
    public function __construct(private readonly History $history) {}

    /** Every change, with who made it. */
    public function show(Request $request, Bench $bench): View
    {
        $given = $request->validate([
            'by' => ['nullable', 'integer', 'min:0', 'max:999999999'],
            'words' => ['nullable', 'string', 'max:200'],
            'page' => ['nullable', 'integer', 'min:0', 'max:100000'],
        ]);
        $log = new Log($bench->project);
        [$by, $words, $page] = [(int) ($given['by'] ?? 0), (string) ($given['words'] ?? ''), (int) ($given['page'] ?? 0)];

        return view('workbench.changes', [
            'bench' => $bench,
            'changes' => $log->page($by, $words, $page),
            'count' => $log->count($by, $words),
            'cost' => $log->cost(),
            'people' => User::query()
                ->whereIn('id', $bench->project->changes()->select('user_id'))
                ->orderBy('name')
                ->get(['id', 'name']),
            'by' => $by,
            'words' => $words,
            'page' => $page,
            'isOwner' => $bench->project->role($bench->person) === 'owner',
        ]);
    }

    /** Picks the objects of a change, those of them that are there. */
    public function pick(Request $request, Bench $bench): Response
    {
        $mode = PickMode::in($request);
        $given = $request->validate(['change' => ['required', 'integer', 'min:1', 'max:999999999999']]);
        $objects =
            (new Log($bench->project))->objects((int) $given['change']) ??
            throw new Refused('What that change did is no longer kept.', 'change');
        $there = $bench->scene()->numberBits($bench->scene()->rowBits($objects));
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $there)));
        $gone = $objects->count() - $there->count();

        return Answer::to($bench, $request)
            ->saying($gone === 0 ? '' : number_format($gone).' of them '.($gone === 1 ? 'is' : 'are').' not there now.')
            ->send();
    }

    /** Takes back what the person did since a change, and that change. */
    public function back(Request $request, Bench $bench): Response
    {
        return $this->turned($request, $bench, $this->history->backTo($bench, self::meant($request) ?? 0));
    }

    /** How many changes are kept. */
    public function keep(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['kept' => ['required', 'in:'.implode(',', Log::KEPT)]]);
        if ($bench->project->role($bench->person) !== 'owner') {
            throw new Refused('Only who owns the project can say how many changes are kept.', 'kept');
        }
        $thinned = DB::transaction(static function () use ($bench, $given): int {
            Hold::on($bench->project, $bench->person);
            $bench->project->update(['history_kept' => (int) $given['kept']]);

            return (new Log($bench->project))->thin();
        }, History::ATTEMPTS);
        $bench->refresh();

        return Answer::to($bench, $request)
            ->saying(
                $thinned === 0 ? 'The history keeps that much.' : number_format($thinned).' older changes can no longer be taken back.',
            )
            ->send();
    }

    /** Whose change another one of the person waits for, asked while it does. */
    public function waiting(Bench $bench): JsonResponse
    {
        return response()->json(['says' => Hold::waitsInWords($bench->project, $bench->person)]);
    }

    public function undo(Request $request, Bench $bench): Response
    {
        return $this->turned($request, $bench, $this->history->undo($bench, self::meant($request)));
    }

    public function redo(Request $request, Bench $bench): Response
    {
        return $this->turned($request, $bench, $this->history->redo($bench, self::meant($request)));
    }

    private function turned(Request $request, Bench $bench, Turned $turned): Response
    {
        $bench->refresh();

        return Answer::to($bench, $request)->turning($turned)->send();
    }

    private static function meant(Request $request): ?int
    {
        $given = $request->validate(['change' => ['nullable', 'integer', 'min:1', 'max:999999999999']]);

        return isset($given['change']) ? (int) $given['change'] : null;
    }
}
