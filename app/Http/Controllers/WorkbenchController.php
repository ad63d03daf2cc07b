<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Ledger\Ledger;
use App\Models\Desk;
use App\Models\Project;
use App\Models\User;
use App\Workbench\Answer;
use App\Workbench\Bench;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\View\View;

/** The workbench page, the ledger's windows, and what other people changed meanwhile. */
final class WorkbenchController
{
    public function show(Request $request, Project $project): View
    {
        $bench = Bench::of($project, self::person($request));

        return view('workbench.page', Answer::parts($bench, $request) + ['project' => $project, 'sources' => $project->sources()->get(), 'materials' => CanvasController::materials($project)]);
    }

    public function ledger(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, self::person($request));
        $parts = ['bench' => $bench, 'ledger' => new Ledger($bench, $request->string('lens')->value(), mb_substr($request->string('words')->value(), 0, 200), max(0, $request->integer('from')), min(200, max(10, $request->integer('count', 60))))];

        return response()->view('workbench.rows', $parts);
    }

    /** Folds or unfolds rows, or turns to another lens, and answers with the ledger. */
    public function arrange(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, self::person($request));
        $open = $bench->desk->ledger;
        if ($request->has('lens')) {
            $open['lens'] = isset(Ledger::LENSES[$request->string('lens')->value()]) ? $request->string('lens')->value() : 'layers';
        }
        $unfold = $request->boolean('unfold');
        foreach (explode(',', $request->string('fold')->value()) as $key) {
            if (preg_match('~^([LO])(\d{1,9})$~', $key, $found) === 1) {
                $what = $found[1] === 'L' ? 'layers' : 'objects';
                $numbers = array_fill_keys($open[$what] ?? [], true);
                if ($unfold) {
                    $numbers[(int) $found[2]] = true;
                } else {
                    unset($numbers[(int) $found[2]]);
                }
                $open[$what] = array_keys($numbers);
            }
        }
        if ($request->has('all')) {
            $open = $this->all($bench, $open, $unfold);
        }
        Desk::query()->where('project_id', $project->id)->where('user_id', $bench->person->id)->update(['ledger' => json_encode($open)]);
        $bench->desk->ledger = $open;

        return response()->view('workbench.rows', ['bench' => $bench, 'ledger' => new Ledger($bench, $open['lens'] ?? 'layers', mb_substr($request->string('words')->value(), 0, 200), max(0, $request->integer('from')), min(200, max(10, $request->integer('count', 60))))]);
    }

    /** Where a row stands in the ledger as it is unfolded; for an object that is folded away, where its layer or nearest shown group stands. */
    public function place(Request $request, Project $project): JsonResponse
    {
        $bench = Bench::of($project, self::person($request));
        $ledger = new Ledger($bench, $request->string('lens')->value(), mb_substr($request->string('words')->value(), 0, 200));
        $key = preg_match('~^[LO]\d{1,9}$~', $request->string('key')->value()) === 1 ? $request->string('key')->value() : 'L1';
        $place = $ledger->lens()->position($key);
        $row = $key[0] === 'O' ? $bench->scene()->row((int) substr($key, 1)) : 0;
        if ($place === null && $row !== 0) {
            if ($ledger->name === 'layers') {
                $key = 'L'.$bench->scene()->layers()->at($row);
                $place = $ledger->lens()->position($key);
            } else {
                foreach ($bench->scene()->ancestors($row) as $above) {
                    $key = 'O'.$bench->scene()->number($above);
                    $place = $ledger->lens()->position($key);
                    if ($place !== null) {
                        break;
                    }
                }
            }
        }

        return new JsonResponse(['key' => $key, 'place' => $place]);
    }

    /** Answers with everything when the project or the desk has moved on since the revisions that the page knows. */
    public function pulse(Request $request, Project $project): Response
    {
        $desk = DB::table('desks')->where('project_id', $project->id)->where('user_id', self::person($request)->id)->value('revision');
        if ($project->revision === $request->integer('revision') && $desk === $request->integer('desk')) {
            return response()->noContent();
        }

        return Answer::to(Bench::of($project, self::person($request)), $request)->send();
    }

    /**
     * @param array{lens?: string, layers?: list<int>, objects?: list<int>} $open
     *
     * @return array{lens?: string, layers?: list<int>, objects?: list<int>}
     */
    private function all(Bench $bench, array $open, bool $unfold): array
    {
        if (($open['lens'] ?? 'layers') === 'layers') {
            $open['layers'] = $unfold ? array_map(static fn (array $entry): int => $entry[0]->number, $bench->layers()->walk()) : [];

            return $open;
        }
        $groups = [];
        $scene = $bench->scene();
        for ($row = 1; $unfold && $row <= $scene->count(); $row++) {
            if ($scene->end($row) > $row) {
                $groups[] = $scene->number($row);
            }
        }
        $open['objects'] = $groups;

        return $open;
    }

    public static function person(Request $request): User
    {
        $person = $request->user();
        abort_unless($person instanceof User, 403);

        return $person;
    }
}
