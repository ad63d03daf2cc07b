<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Changes\Refused;
use App\Ledger\Ledger;
use App\Models\Project;
use App\Scenes\MeshShapes;
use App\Workbench\Bench;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use VineShelf\Picking\Sight;
use VineShelf\Rules\AllOf;
use VineShelf\Rules\Completion;
use VineShelf\Rules\Lexer;
use VineShelf\Rules\Node;
use VineShelf\Rules\NoneOf;
use VineShelf\Rules\Parser;
use VineShelf\Rules\Printer;
use VineShelf\Rules\RuleError;
use VineShelf\Rules\TextIs;
use VineShelf\Scene\Bits;
use VineShelf\Search\NameIndex;

/** Finding: how a rule can go on, the hits one by one, and names for the command box. */
final class FindController
{
    private const NAMES = 8;

    /** Objects whose names start alike that are looked at when jumping ahead. */
    private const AHEAD = 500;

    /** How the rule can go on at the cursor. */
    public function complete(Request $request, Project $project): JsonResponse
    {
        $bench = Bench::of($project, WorkbenchController::person($request));

        return new JsonResponse((new Completion($bench->contextOfRules()))->at(mb_substr($request->string('words')->value(), 0, Lexer::LONGEST), $request->integer('at')));
    }

    /** The rule with one condition more: only what it picks, or all but that. A condition on the same field gives way. */
    public function narrow(Request $request, Project $project): JsonResponse
    {
        $given = $request->validate(['by' => ['required', 'string', 'max:400'], 'way' => ['required', 'in:only,without']]);
        try {
            $condition = Parser::parse($given['by'])->tree;
            $words = trim($request->string('words')->value());
            $tree = $words === '' ? null : Parser::parse($words)->tree;
        } catch (RuleError $error) {
            throw new Refused($error->getMessage(), 'words');
        }
        $parts = $tree === null ? [] : ($tree instanceof AllOf ? $tree->parts : [$tree]);
        if ($given['way'] === 'only') {
            $parts = array_values(array_filter($parts, static fn (Node $part): bool => self::fieldOf($part) === null || self::fieldOf($part) !== self::fieldOf($condition)));
        }
        $parts[] = $given['way'] === 'only' ? $condition : new NoneOf($condition);

        return new JsonResponse(['words' => Printer::print(count($parts) === 1 ? $parts[0] : new AllOf($parts))]);
    }

    /** The next hit after an object, or the one before it, in the order of the ledger's sorting. */
    public function step(Request $request, Project $project): JsonResponse
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $found = Ledger::asked($bench, $request)->found();
        if ($found->rows === null) {
            throw new Refused($found->error?->getMessage() ?? 'Type what to look for first.', 'words');
        }
        $arrangement = $bench->arrangement();
        $rows = $found->rows;
        $list = new \App\Ledger\RowList($bench->scene()->count(), static fn (): Bits => $rows, (new \App\Ledger\Sorting($bench))->order($arrangement->sortBy, $arrangement->down));
        $total = $list->count();
        if ($total === 0) {
            return new JsonResponse(['total' => 0]);
        }
        $at = $bench->scene()->row($request->integer('object'));
        $place = $at === 0 ? null : $list->position($at);
        $back = $request->integer('way') < 0;
        $next = match (true) {
            $place !== null => ($place + ($back ? $total - 1 : 1)) % $total,
            // From an object that is no hit, on to the first one after it.
            $at > 0 && ! $arrangement->isSorted() => ($rows->rank($at) + ($back ? $total - 1 : 0)) % $total,
            default => $back ? $total - 1 : 0,
        };
        $row = $list->slice($next, 1)[0];

        return new JsonResponse(['object' => $bench->scene()->number($row), 'place' => $next + 1, 'total' => $total, 'box' => self::box($bench, $row), 'hidden' => $bench->inEffect()->rungs()->at($row) === 0]);
    }

    /** Where to look at an object from so that nothing is in front of it: the eye that the canvas would take, or one around. */
    public function sight(Request $request, Project $project): JsonResponse
    {
        $given = $request->validate(['object' => ['required', 'integer'], 'eye' => ['required', 'array', 'size:3'], 'eye.*' => ['numeric', 'between:-1e7,1e7']]);
        $bench = Bench::of($project, WorkbenchController::person($request));
        $row = $bench->scene()->row((int) $given['object']);
        $box = $row === 0 ? null : $bench->facts()->box($row);
        if ($box === null || $bench->inEffect()->rungs()->at($row) === 0) {
            return new JsonResponse(['eye' => null]);
        }
        $origin = $bench->facts()->origin();
        $eye = array_map(floatval(...), array_values($given['eye']));
        $middle = [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2, ($box[2] + $box[5]) / 2];
        $radius = hypot($box[3] - $box[0], hypot($box[4] - $box[1], $box[5] - $box[2])) / 2;
        $found = (new Sight($bench->facts(), $bench->inEffect(), new MeshShapes($project, $bench->scene())))->from($row, [$eye[0] + $origin[0], $eye[1] + $origin[1], $eye[2] + $origin[2]], $middle, $radius);

        return new JsonResponse(['eye' => $found === null ? null : [$found[0] - $origin[0], $found[1] - $origin[1], $found[2] - $origin[2]]]);
    }

    /** Where objects of a pick or with a number are, for the canvas to frame. */
    public function frame(Request $request, Project $project): JsonResponse
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $rows = $request->has('object') ? $bench->scene()->rowsOf([$request->integer('object')]) : $bench->pickedBits()->rows();
        $box = null;
        foreach ($rows as $row) {
            $own = self::box($bench, $row);
            if ($own !== null) {
                $box = $box === null ? $own : [min($box[0], $own[0]), min($box[1], $own[1]), min($box[2], $own[2]), max($box[3], $own[3]), max($box[4], $own[4]), max($box[5], $own[5])];
            }
        }

        return new JsonResponse(['box' => $box]);
    }

    /** The next row of the ledger, as it is unfolded, whose name starts with something; from the top again after the last one. */
    public function ahead(Request $request, Project $project): JsonResponse
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $starts = mb_strtolower($request->string('starts')->value());
        $after = $request->integer('after', -1);
        if ($starts === '') {
            return new JsonResponse(['place' => null]);
        }
        $ledger = Ledger::asked($bench, $request);
        $keys = [];
        foreach ($ledger->name === 'layers' ? $bench->layers()->walk() : [] as [$layer]) {
            if (str_starts_with(mb_strtolower($layer->name), $starts)) {
                $keys[] = "L$layer->number";
            }
        }
        $groups = new \App\Ledger\Groups($bench);
        foreach (match ($ledger->name) {
            'kinds' => $groups->kinds(),
            'materials' => $groups->materials(),
            'sources' => $groups->sources(),
            default => [],
        } as $group) {
            if (str_starts_with(mb_strtolower($group->name), $starts)) {
                $keys[] = $group->key;
            }
        }
        foreach (NameIndex::starting($bench->scene(), strtr($starts, "\n\r", '  '))->slice(0, self::AHEAD) as $row) {
            $keys[] = 'O'.$bench->scene()->number($row);
        }
        $places = array_filter(array_map($ledger->lens()->position(...), $keys), is_int(...));
        $later = array_filter($places, static fn (int $place): bool => $place > $after);

        return new JsonResponse(['place' => $later !== [] ? min($later) : ($places === [] ? null : min($places))]);
    }

    /** Layers, views, materials and objects whose names hold the words. */
    public function names(Request $request, Project $project): JsonResponse
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $words = mb_strtolower($request->string('q')->squish()->limit(200, '')->value());
        if ($words === '') {
            return new JsonResponse([]);
        }
        $has = static fn (string $name): bool => str_contains(mb_strtolower($name), $words);
        $names = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            if ($has($layer->name)) {
                $names[] = ['what' => 'layer', 'key' => "L$layer->number", 'name' => $layer->name, 'where' => 'layer'];
            }
        }
        foreach ($project->views()->get(['project_id', 'no', 'name', 'position']) as $view) {
            if ($has($view->name)) {
                $names[] = ['what' => 'view', 'key' => (string) $view->no, 'name' => $view->name, 'where' => 'view'];
            }
        }
        foreach ($bench->facts()->materials() as $number => [$name]) {
            if ($has($name)) {
                $names[] = ['what' => 'material', 'key' => "M$number", 'name' => $name, 'where' => 'material'];
            }
        }
        $names = array_slice($names, 0, self::NAMES);
        $rows = NameIndex::having($bench->scene(), $words)->slice(0, self::NAMES);
        $numbers = array_map($bench->scene()->number(...), $rows);
        $objects = DB::table('objects')->where('project_id', $project->id)->whereIn('no', $numbers)->pluck('name', 'no');
        foreach ($rows as $index => $row) {
            $name = $objects[$numbers[$index]] ?? '';
            $names[] = ['what' => 'object', 'key' => "O{$numbers[$index]}", 'name' => is_string($name) ? $name : '', 'where' => $bench->scene()->kind($row)->label().' in '.$bench->layers()->get($bench->scene()->layers()->at($row))->name];
        }

        return new JsonResponse($names);
    }

    /** @return array{float, float, float, float, float, float}|null as the canvas counts: without the origin, metres */
    private static function box(Bench $bench, int $row): ?array
    {
        $box = $bench->facts()->box($row);
        [$x, $y, $z] = $bench->facts()->origin();

        return $box === null ? null : [$box[0] - $x, $box[1] - $y, $box[2] - $z, $box[3] - $x, $box[4] - $y, $box[5] - $z];
    }

    private static function fieldOf(Node $node): ?string
    {
        return match (true) {
            $node instanceof NoneOf => self::fieldOf($node->part),
            $node instanceof TextIs => ($node->isProperty ? 'property ' : '').mb_strtolower($node->field),
            default => null,
        };
    }
}
