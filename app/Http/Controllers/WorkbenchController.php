<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Ledger\Arrangement;
use App\Ledger\Column;
use App\Ledger\Groups;
use App\Ledger\Ledger;
use App\Models\Desk;
use App\Models\Project;
use App\Models\User;
use App\Workbench\Answer;
use App\Workbench\Bench;
use App\Workbench\Keys;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\View\View;
use VineShelf\Picking\Pick;
use VineShelf\Scene\Kind;

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
        $ledger = Ledger::asked($bench, $request);
        $error = $ledger->found()->error;
        if ($error !== null) {
            return response()->view('workbench.rule-error', ['error' => $error, 'words' => $ledger->words], 422, ['HX-Reswap' => 'none']);
        }

        return response()->view('workbench.rows', ['bench' => $bench, 'ledger' => $ledger]);
    }

    /** Folds or unfolds rows, turns to another lens, changes columns or sorting, and answers with the ledger. */
    public function arrange(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, self::person($request));
        $kept = $bench->arrangement()->toArray();
        if ($request->has('lens') && isset(Ledger::LENSES[$request->string('lens')->value()])) {
            $kept['lens'] = $request->string('lens')->value();
        }
        $unfold = $request->boolean('unfold');
        if ($request->has('fold')) {
            $kept = self::folded($kept, Keys::of(explode(',', $request->string('fold')->value())), $unfold);
        }
        if ($request->boolean('all') || $request->has('depth')) {
            $kept = self::toDepth($bench, $kept, $unfold ? ($request->has('depth') ? max(0, $request->integer('depth')) : 1000) : 0);
        }
        if ($request->has('deep')) {
            $kept = self::deep($bench, $kept, Keys::of(explode(',', $request->string('deep')->value())), $unfold);
        }
        if ($request->has('columns')) {
            $columns = json_decode($request->string('columns')->value(), true);
            $kept['columns'] = is_array($columns) ? $columns : $kept['columns'];
            $kept['layout'] = 0;
        }
        if ($request->has('sort')) {
            $kept['sort'] = $request->string('sort')->value() === '' ? null : [$request->string('sort')->value(), $request->boolean('down')];
            $kept['layout'] = 0;
        }
        if ($request->has('follow')) {
            $kept['follow'] = $request->boolean('follow');
        }
        self::keep($bench, $kept);

        return response()->view('workbench.ledger-parts', ['bench' => $bench, 'ledger' => Ledger::asked($bench, $request)]);
    }

    /** Asks which columns the ledger is to have. */
    public function columns(Request $request, Project $project): View
    {
        $bench = Bench::of($project, self::person($request));
        $chosen = $bench->arrangement()->columns;
        $ids = array_map(static fn (Column $column): string => $column->id, $chosen);
        $others = array_values(array_filter(Column::all(array_map(strval(...), array_keys($bench->facts()->properties()))), static fn (Column $column): bool => ! in_array($column->id, $ids, true)));

        return view('workbench.columns', ['bench' => $bench, 'chosen' => $chosen, 'others' => $others]);
    }

    /** Where a row stands in the ledger as it is unfolded; for an object that is folded away, where its layer or nearest shown group stands. */
    public function place(Request $request, Project $project): JsonResponse
    {
        $bench = Bench::of($project, self::person($request));
        $ledger = Ledger::asked($bench, $request);
        $key = preg_match('~^[LOKMS]\d{1,9}(\.\d{1,9})?$~D', $request->string('key')->value()) === 1 ? $request->string('key')->value() : 'L1';
        $place = $ledger->lens()->position($key);
        $row = $key[0] === 'O' ? $bench->scene()->row((int) substr($key, 1)) : 0;
        if ($place === null && $row !== 0) {
            foreach (self::homes($bench, $ledger->name, $row) as $key) {
                $place = $ledger->lens()->position($key);
                if ($place !== null) {
                    break;
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

    /** @param array<string, mixed> $kept an arrangement of the ledger */
    public static function keep(Bench $bench, array $kept): void
    {
        Desk::query()->where('project_id', $bench->project->id)->where('user_id', $bench->person->id)->update(['ledger' => json_encode($kept)]);
        $bench->refresh();
    }

    public static function person(Request $request): User
    {
        $person = $request->user();
        abort_unless($person instanceof User, 403);

        return $person;
    }

    /** @return list<string> keys of the rows that an object can be found under, nearest first */
    private static function homes(Bench $bench, string $lens, int $row): array
    {
        $scene = $bench->scene();
        $kind = $scene->kind($row)->value;

        return match ($lens) {
            'nesting' => array_map(static fn (int $above): string => 'O'.$scene->number($above), $scene->ancestors($row)),
            'kinds' => [...array_map(static fn (int $code): string => "K$kind.$code", array_keys($bench->facts()->words('class.words'), $bench->facts()->className($row), true)), "K$kind"],
            'materials' => array_map(static fn (int $material): string => "M$material", $bench->facts()->materialsOf($row) ?: [0]),
            'sources' => ['S'.$bench->facts()->sources()->at($row)],
            'layers' => array_map(static fn (\VineShelf\Layers\Layer $layer): string => "L$layer->number", $bench->layers()->chain($scene->layers()->at($row))),
            default => [],
        };
    }

    /**
     * @param array<string, mixed> $kept
     *
     * @return array<string, mixed>
     */
    private static function folded(array $kept, Keys $keys, bool $unfold): array
    {
        $objects = Arrangement::unfolded($kept);
        $kept['objects'] = Arrangement::packed($unfold ? $objects->with($keys->objects) : $objects->without($keys->objects));
        foreach (['layers' => $keys->layers, 'groups' => $keys->groups] as $what => $some) {
            $open = is_array($kept[$what]) ? $kept[$what] : [];
            $kept[$what] = array_values($unfold ? array_unique([...$open, ...$some]) : array_diff($open, $some));
        }

        return $kept;
    }

    /**
     * Unfolds what is nested less deep than $depth in the lens, and folds the rest.
     *
     * @param array<string, mixed> $kept
     *
     * @return array<string, mixed>
     */
    private static function toDepth(Bench $bench, array $kept, int $depth): array
    {
        $lens = $kept['lens'];
        if ($lens === 'layers') {
            $kept['layers'] = [];
            foreach ($bench->layers()->walk() as [$layer, $level]) {
                if ($level < $depth) {
                    $kept['layers'][] = $layer->number;
                }
            }
        } elseif ($lens === 'nesting') {
            $kept['objects'] = $depth === 0 ? '' : Arrangement::packed(Pick::ofBits($bench->scene()->numberBits($bench->facts()->bits('groups')->and($bench->facts()->ranked('depth')->between(1, $depth)))));
        } else {
            $kept['groups'] = [];
            $groups = new Groups($bench);
            foreach ($depth === 0 ? [] : match ($lens) {
                'kinds' => $groups->kinds(),
                'materials' => $groups->materials(),
                default => $groups->sources(),
            } as $group) {
                $kept['groups'][] = $group->key;
                foreach ($group->what === 'kind' && $depth > 1 ? $groups->classes(Kind::from((int) substr($group->key, 1))) : [] as $class) {
                    $kept['groups'][] = $class->key;
                }
            }
        }

        return $kept;
    }

    /**
     * Folds or unfolds rows with everything in them.
     *
     * @param array<string, mixed> $kept
     *
     * @return array<string, mixed>
     */
    private static function deep(Bench $bench, array $kept, Keys $keys, bool $unfold): array
    {
        $all = array_map(static fn (int $layer): string => "L$layer", array_merge(...array_map($bench->layers()->withNested(...), array_filter($keys->layers, $bench->layers()->has(...)))));
        $scene = $bench->scene();
        $groups = $scene->numberBits(Pick::of($keys->objects)->withHeld($scene)->and($bench->facts()->bits('groups')));
        $objects = Arrangement::unfolded($kept);
        $kept['objects'] = Arrangement::packed($unfold ? $objects->withBits($groups) : $objects->withoutBits($groups));
        foreach ($keys->groups as $key) {
            $all[] = $key;
            foreach (preg_match('~^K(\d+)$~', $key, $found) === 1 ? (new Groups($bench))->classes(Kind::from((int) $found[1])) : [] as $class) {
                $all[] = $class->key;
            }
        }

        return self::folded($kept, Keys::of($all), $unfold);
    }
}
