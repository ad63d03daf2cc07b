<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Models\Desk;
use App\Workbench\Answer;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Picking\Reach;
use VineShelf\Picking\Scope;
use VineShelf\Picking\Ways\Asked;
use VineShelf\Scene\Pick;

/** From the pick to its relatives. */
final class ReachController
{
    /** Asks how to reach on from the pick: ways, and the properties that it has. */
    public function ask(Bench $bench): View
    {
        $properties = [];
        $picked = $bench->pickedBits();
        foreach ($bench->facts()->properties() as $name => [$index]) {
            $objects = $picked
                ->and(
                    $bench
                        ->facts()
                        ->ranked("property.$index")
                        ->present(),
                )
                ->count();
            if ($objects > 0) {
                $properties[(string) $name] = $objects;
            }
        }

        return view('workbench.reach', ['bench' => $bench, 'properties' => $properties]);
    }

    public function reach(Request $request, Bench $bench): Response
    {
        $given = $request->validate([
            'way' => ['required', 'string'],
            'tolerance' => ['nullable', 'numeric', 'between:0,1'],
            'property' => ['nullable', 'string', 'max:400'],
            'scope' => ['nullable', 'string', 'max:20'],
        ]);
        $scope =
            Scope::tryFrom($given['scope'] ?? 'project') ??
            throw new Refused('Look in the whole project, the same outermost group, or the same layer.', 'scope');
        $reach = Reach::tryFrom($given['way']) ?? throw new Refused('There is no such way to reach.', 'way');
        $before = $bench->pickedBits();
        $count = $before->count();
        if ($count === 0) {
            throw new Refused('Nothing is picked; pick objects to reach from first.', 'way');
        }
        $property = ($given['property'] ?? '') === '' ? null : $given['property'];
        if ($property !== null) {
            $property = $bench->facts()->propertyNamed($property)
                ?? throw new Refused("No file has a property called “{$property}”.", 'property');
        }
        $after = $reach->of($before, $bench->facts(), new Asked((float) ($given['tolerance'] ?? Asked::TOLERANCE), $property), $scope);
        $pick = Pick::ofBits($bench->scene()->numberBits($after));
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($pick));
        $what = $property === null ? mb_strtolower($reach->label()) : "same $property";
        $what .= $scope === Scope::Project ? '' : ', '.mb_strtolower($scope->label());
        $same = $after->bytes === $before->bytes ? ': nothing more to reach' : '';

        return Answer::to($bench, $request)
            ->saying(number_format($count).' → '.number_format($after->count()).", $what$same.")
            ->send();
    }
}
