<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Changes\Command;
use App\Changes\History;
use App\Changes\WaveThrough;
use App\Jobs\Tidy;
use App\Models\Desk;
use App\Models\Tidying;
use App\Tidying\Looking;
use App\Tidying\Mending;
use App\Tidying\Report;
use App\Tidying\Waivers;
use App\Workbench\Answer;
use App\Workbench\PickMode;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\View\View;
use VineShelf\Scene\Pick;
use VineShelf\Tidy\Check;
use VineShelf\Tidy\Checks;

/** What is untidy in a project: looks for it, picks it, mends it, waves it through. */
final class TidyController
{
    private const ITEM = ['nullable', 'string', 'max:80'];

    public function __construct(private readonly History $history) {}

    public function show(Bench $bench): View
    {
        $tidying = self::last($bench);
        $waivers = Waivers::of($bench->project);

        return view('workbench.tidy', [
            'bench' => $bench,
            'tidying' => $tidying,
            'report' => $tidying === null ? null : Report::unpack($tidying->report),
            'waived' => $waivers->byCheck(),
            'waivers' => $waivers,
        ]);
    }

    /** Looks through the project, in the queue. */
    public function run(Request $request, Bench $bench): Response
    {
        DB::transaction(static function () use ($bench): void {
            self::own($bench)
                ->whereNotIn('state', ['done', 'failed', 'stopped'])
                ->update(['stop' => true]);
            $tidying = Tidying::query()->create([
                'key' => Str::lower(Str::random(20)),
                'project_id' => $bench->project->id,
                'user_id' => $bench->person->id,
                // What was found last stays in sight.
                'report' => self::last($bench)->report ?? '',
            ]);
            self::own($bench)
                ->where('id', '<', $tidying->id)
                ->whereIn('state', ['done', 'failed', 'stopped'])
                ->delete();
            Tidy::dispatch($tidying->id);
        });

        return Answer::to($bench, $request)->send();
    }

    public function stop(Request $request, Bench $bench): Response
    {
        self::own($bench)
            ->whereNotIn('state', ['done', 'failed', 'stopped'])
            ->update(['stop' => true]);
        self::own($bench)
            ->where('state', 'waiting')
            ->update(['state' => 'stopped', 'says' => 'Stopped.']);

        return Answer::to($bench, $request)->send();
    }

    /** Picks what a check finds now, or one thing of it. */
    public function pick(Request $request, Bench $bench): Response
    {
        $mode = PickMode::in($request);
        $given = $request->validate(['check' => ['required', 'string', 'max:40'], 'item' => self::ITEM]);
        $rows = (new Looking($bench))->rows(self::check((string) $given['check']), (string) ($given['item'] ?? ''));
        $numbers = $bench->scene()->numberBits($rows);
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $numbers)));

        return Answer::to($bench, $request)
            ->saying($rows->isEmpty() ? 'Nothing of it is left.' : '')
            ->send();
    }

    public function mend(Request $request, Bench $bench): Response
    {
        $given = $request->validate([
            'check' => ['required', 'string', 'max:40'],
            'mend' => ['required', 'string', 'max:40'],
            'item' => self::ITEM,
        ]);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): Command => Mending::command(
                $held,
                (string) $given['check'],
                (string) $given['mend'],
                (string) ($given['item'] ?? ''),
            ),
        );
        $this->again($bench);

        return Answer::to($bench, $request)->after($command, 'There is nothing to mend in this way.')->send();
    }

    /** A habit, one thing or the pick is waved through, or looked for again. */
    public function wave(Request $request, Bench $bench): Response
    {
        $given = $request->validate([
            'check' => ['required', 'string', 'max:40'],
            'of' => ['required', 'in:all,item,pick,again'],
            'item' => self::ITEM,
        ]);
        $check = self::check((string) $given['check']);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): WaveThrough => match ($given['of']) {
                'again' => WaveThrough::again($held, $check->id(), $check->title(2)),
                'pick' => WaveThrough::it(
                    $held,
                    $check->id(),
                    '',
                    (new Looking($held))->rows($check)->and($held->pickedBits()),
                    'the pick, '.$check->title(2),
                ),
                'item' => WaveThrough::it(
                    $held,
                    $check->id(),
                    (string) ($given['item'] ?? '') ?: throw new Refused('Say what is meant.', 'item'),
                    null,
                    $check->title(1),
                ),
                default => WaveThrough::it($held, $check->id(), '', null, $check->title(2)),
            },
        );
        $this->again($bench);

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** The report follows what was mended or waved through. */
    private function again(Bench $bench): void
    {
        $last = self::last($bench);
        if ($last !== null) {
            $next = Tidying::query()->create([
                'key' => Str::lower(Str::random(20)),
                'project_id' => $bench->project->id,
                'user_id' => $bench->person->id,
                'report' => $last->report,
            ]);
            self::own($bench)
                ->where('id', '<', $next->id)
                ->whereIn('state', ['done', 'failed', 'stopped'])
                ->delete();
            self::own($bench)
                ->where('id', '<', $next->id)
                ->update(['stop' => true]);
            Tidy::dispatch($next->id);
        }
    }

    private static function check(string $id): Check
    {
        return Checks::all()[$id] ?? throw new Refused('There is no such check.', 'check');
    }

    private static function last(Bench $bench): ?Tidying
    {
        return self::own($bench)->orderByDesc('id')->first();
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Tidying> */
    private static function own(Bench $bench): \Illuminate\Database\Eloquent\Builder
    {
        return Tidying::query()->where('project_id', $bench->project->id)->where('user_id', $bench->person->id);
    }
}
