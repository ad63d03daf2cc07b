<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Changes\Refused;
use App\Ledger\Ledger;
use App\Models\Casts\Bytes;
use App\Models\Desk;
use App\Models\Project;
use App\Scenes\MeshShapes;
use App\Workbench\Answer;
use App\Workbench\Bench;
use App\Workbench\Keys;
use App\Workbench\RegionRequest;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Picking\Parked;
use VineShelf\Picking\Pick;
use VineShelf\Picking\Ray;
use VineShelf\Picking\Reach;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;

/** The pick: objects come and go by rows, rules, regions and reach; picks are parked; a pick is looked at alone. */
final class PickController
{
    public function pick(Request $request, Project $project): Response
    {
        $given = $request->validate(['mode' => ['required', 'in:replace,add,remove,toggle']]);
        $bench = Bench::of($project, WorkbenchController::person($request));
        $keys = Keys::in($request);
        $numbers = $keys->objects;
        $rows = $keys->heldIn($bench);
        if (preg_match('~^(\d{1,9})-(\d{1,9})$~', $request->string('span')->value(), $span) === 1) {
            array_push($numbers, ...$this->between($bench, $request, (int) $span[1], (int) $span[2]));
        }
        if ($request->boolean('found')) {
            $found = Ledger::asked($bench, $request)->found();
            if ($found->rows === null) {
                throw new Refused($found->error?->getMessage() ?? 'Type what to look for first.', 'words');
            }
            $rows = $rows->or($found->rows);
        }
        $this->keep($bench, $this->changed($bench, $given['mode'], $numbers, $rows));

        return Answer::to($bench, $request)->send();
    }

    /** What a region in the picture catches; with "count", only how many that would be. */
    public function region(Request $request, Project $project): Response|JsonResponse
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $asked = RegionRequest::of($request, $bench->facts()->origin());
        $rows = $asked->find($bench, new MeshShapes($project, $bench->scene()));
        if ($request->boolean('count')) {
            return new JsonResponse(['count' => $rows->count()]);
        }
        $mode = (string) $request->validate(['mode' => ['required', 'in:replace,add,remove']])['mode'];
        $this->keep($bench, $this->changed($bench, $mode, [], $rows));
        $count = $rows->count();

        return Answer::to($bench, $request)->saying(match (true) {
            $count === 0 => 'The region caught nothing that is open and shown.',
            default => number_format($count).' '.($count === 1 ? 'object' : 'objects').' caught'.(['replace' => '', 'add' => ' and added', 'remove' => ' and taken away'][$mode]).'.',
        })->send();
    }

    /** From the pick to its relatives. */
    public function reach(Request $request, Project $project): Response
    {
        $given = $request->validate(['way' => ['required', 'string'], 'tolerance' => ['nullable', 'numeric', 'between:0,1'], 'property' => ['nullable', 'string', 'max:400']]);
        $reach = Reach::tryFrom($given['way']) ?? throw new Refused('There is no such way to reach.', 'way');
        $bench = Bench::of($project, WorkbenchController::person($request));
        $before = $bench->pickedBits();
        $count = $before->count();
        if ($count === 0) {
            throw new Refused('Nothing is picked; pick objects to reach from first.', 'way');
        }
        $property = isset($given['property']) && $given['property'] !== '' ? $bench->facts()->propertyNamed($given['property']) ?? throw new Refused("No file has a property called “{$given['property']}”.", 'property') : null;
        $after = $reach->of($before, $bench->facts(), (float) ($given['tolerance'] ?? Reach::TOLERANCE), $property);
        $this->keep($bench, Pick::ofBits($bench->scene()->numberBits($after)));
        $what = $property === null ? mb_strtolower($reach->label()) : "same $property";
        $same = $after->bytes === $before->bytes;

        return Answer::to($bench, $request)->saying(number_format($count).' → '.number_format($after->count()).', '.$what.($same ? ': nothing more to reach' : '').'.')->send();
    }

    /** Asks how to reach on from the pick: ways, and the properties that it has. */
    public function ways(Request $request, Project $project): View
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $properties = [];
        $picked = $bench->pickedBits();
        foreach ($bench->facts()->properties() as $name => [$index]) {
            $objects = $picked->and($bench->facts()->ranked("property.$index")->present())->count();
            if ($objects > 0) {
                $properties[(string) $name] = $objects;
            }
        }

        return view('workbench.reach', ['bench' => $bench, 'properties' => $properties]);
    }

    /** Parks the pick in a slot. */
    public function park(Request $request, Project $project, int $slot): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $pick = $request->boolean('clear') ? Pick::of() : $bench->pick();
        if ($pick->count() === 0 && ! $request->boolean('clear')) {
            throw new Refused('Nothing is picked; there is nothing to park.');
        }
        $this->desk($bench)->update(['parked' => Bytes::write($bench->parked()->with($slot, $pick)->pack()), 'revision' => $bench->desk->revision + 1]);
        $bench->refresh();

        return Answer::to($bench, $request)->saying($pick->count() === 0 ? "Slot $slot is empty." : number_format($pick->count()).' parked in slot '.$slot.'.')->send();
    }

    public function recall(Request $request, Project $project, int $slot): Response
    {
        $mode = (string) $request->validate(['mode' => ['required', 'in:replace,add,remove']])['mode'];
        $bench = Bench::of($project, WorkbenchController::person($request));
        $parked = $bench->parked()->pick($slot);
        if ($parked->count() === 0) {
            throw new Refused("Nothing is parked in slot $slot. Pick objects, then park them there with Alt+Shift+$slot.");
        }
        $there = $parked->rows($bench->scene());
        $this->keep($bench, $mode === 'replace' && $parked->count() === $there->count() ? $parked : $this->changed($bench, $mode, [], $there));
        $gone = $parked->count() - $there->count();

        return Answer::to($bench, $request)->saying("Slot $slot: ".number_format($parked->count() - $gone).' picked'.($gone > 0 ? ', '.number_format($gone).' are gone from the project' : '').'.')->send();
    }

    /** Looks at the pick, at rows or at what a rule finds alone, one step deeper each time. */
    public function isolate(Request $request, Project $project): Response
    {
        $given = $request->validate(['rest' => ['nullable', 'in:hidden,ghost']]);
        $bench = Bench::of($project, WorkbenchController::person($request));
        $rest = ($given['rest'] ?? 'hidden') === 'ghost' ? Rung::Ghost : Rung::Hidden;
        $keys = Keys::in($request);
        $objects = match (true) {
            $request->boolean('found') => Pick::ofBits($bench->scene()->numberBits(Ledger::asked($bench, $request)->found()->rows ?? Bits::none($bench->scene()->count()))),
            $request->string('keys')->value() === '' => $bench->pick(),
            default => Pick::of($keys->objects)->withBits($bench->scene()->numberBits($keys->heldIn($bench))),
        };
        if ($objects->count() === 0) {
            throw new Refused('There is nothing to look at alone; pick objects first.');
        }
        $this->desk($bench)->update(['isolated' => Bytes::write($bench->isolation()->deeper($objects, $rest)->pack()), 'revision' => $bench->desk->revision + 1]);
        $bench->refresh();

        return Answer::to($bench, $request)->saying(number_format($objects->count()).' isolated; the rest is '.($rest === Rung::Ghost ? 'a ghost at most' : 'hidden').'.')->send();
    }

    /** One step out of isolation, or all of them; or another rung for the rest. */
    public function back(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $isolation = $bench->isolation();
        $after = match (true) {
            $request->has('rest') => $isolation->withRest($request->string('rest')->value() === 'ghost' ? Rung::Ghost : Rung::Hidden),
            $request->boolean('all') => $isolation::none(),
            default => $isolation->back(),
        };
        $this->desk($bench)->update(['isolated' => $after->isOn() ? Bytes::write($after->pack()) : null, 'revision' => $bench->desk->revision + 1]);
        $bench->refresh();

        return Answer::to($bench, $request)->saying(match (true) {
            ! $isolation->isOn() => 'Nothing is isolated.',
            ! $after->isOn() => 'Everything is back as it was.',
            $request->has('rest') => '',
            default => 'One step back: '.number_format($after->objects()->count()).' isolated.',
        })->send();
    }

    /** Where a ray first meets what is shown: for standing on floors. */
    public function meet(Request $request, Project $project): JsonResponse
    {
        $given = $request->validate(['from' => ['required', 'array', 'size:3'], 'from.*' => ['numeric', 'between:-1e7,1e7'], 'way' => ['required', 'array', 'size:3'], 'way.*' => ['numeric', 'between:-1e7,1e7']]);
        $bench = Bench::of($project, WorkbenchController::person($request));
        [$x, $y, $z] = $bench->facts()->origin();
        $from = array_map(floatval(...), array_values($given['from']));
        $way = array_map(floatval(...), array_values($given['way']));
        $met = (new Ray([$from[0] + $x, $from[1] + $y, $from[2] + $z], [$way[0], $way[1], $way[2]]))->meet($bench->facts(), $bench->inEffect(), new MeshShapes($project, $bench->scene()));

        return new JsonResponse($met === null ? ['object' => 0] : ['object' => $bench->scene()->number($met['row']), 'at' => [$from[0] + $met['distance'] * $way[0], $from[1] + $met['distance'] * $way[1], $from[2] + $met['distance'] * $way[2]]]);
    }

    /** @return list<int> objects in a stretch of the ledger's rows; where it holds none, those of its groups */
    private function between(Bench $bench, Request $request, int $from, int $to): array
    {
        $keys = Keys::of(Ledger::asked($bench, $request)->lens()->keys(min($from, $to), abs($to - $from) + 1));

        return $keys->objects !== [] ? $keys->objects : $keys->objectsIn($bench);
    }

    /**
     * The pick with some objects in it, less them, or only them.
     *
     * @param list<int> $numbers in the order in which they were named
     * @param Bits      $rows    and these besides
     */
    private function changed(Bench $bench, string $mode, array $numbers, Bits $rows): Pick
    {
        $pick = $bench->pick();
        $named = Pick::of(array_filter($numbers, static fn (int $number): bool => $bench->scene()->row($number) !== 0));
        if ($rows->isEmpty()) {
            return match ($mode) {
                'add' => $pick->with($named->numbers()),
                'remove' => $pick->without($named->numbers()),
                'toggle' => $pick->with($named->numbers())->count() === $pick->count() ? $pick->without($named->numbers()) : $pick->with($named->numbers()),
                default => $named,
            };
        }
        $bits = $named->withBits($bench->scene()->numberBits($rows))->bits();

        return match ($mode) {
            'add' => $pick->withBits($bits),
            'remove' => $pick->withoutBits($bits),
            'toggle' => $pick->withBits($bits)->count() === $pick->count() ? $pick->withoutBits($bits) : $pick->withBits($bits),
            default => Pick::ofBits($bits),
        };
    }

    private function keep(Bench $bench, Pick $pick): void
    {
        $this->desk($bench)->update(['pick' => Bytes::write($pick->pack()), 'revision' => $bench->desk->revision + 1]);
        $bench->refresh();
    }

    /** @return \Illuminate\Database\Eloquent\Builder<Desk> */
    private function desk(Bench $bench): \Illuminate\Database\Eloquent\Builder
    {
        return Desk::query()->where('project_id', $bench->project->id)->where('user_id', $bench->person->id);
    }
}
