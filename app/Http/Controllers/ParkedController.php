<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Pins;
use App\Bench\Refused;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\PickMode;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Scene\Pick;

/** Picks that are parked in slots and recalled. */
final class ParkedController
{
    /** Parks the pick in a slot, or empties the slot. */
    public function park(Request $request, Bench $bench, int $slot): Response
    {
        $clear = $request->boolean('clear');
        $pick = DeskChange::on($bench, static function (Desk $desk) use ($clear, $slot): Pick {
            $pick = $clear ? Pick::of() : $desk->pick();
            if ($pick->count() === 0 && ! $clear) {
                throw new Refused('Nothing is picked; there is nothing to park.');
            }
            $desk->putParked($desk->parked()->with($slot, $pick));

            return $pick;
        });

        return Answer::to($bench, $request)
            ->saying($pick->count() === 0 ? "Slot $slot is empty." : number_format($pick->count()).' parked in slot '.$slot.'.')
            ->send();
    }

    /** Pins a tag, a set or a rule beside the slots, or takes it off. */
    public function pin(Request $request, Bench $bench): Response
    {
        $what = $request->string('what')->value();
        $on = $request->boolean('on', true);
        DeskChange::on($bench, static function (Desk $desk) use ($bench, $what, $on): void {
            $desk->pins = $on ? Pins::with($bench, $desk->pins, $what) : array_values(array_diff($desk->pins, [$what]));
        });

        return Answer::to($bench, $request)
            ->saying($on ? 'Pinned beside the slots.' : 'No longer pinned.')
            ->send();
    }

    public function recall(Request $request, Bench $bench, int $slot): Response
    {
        $mode = PickMode::in($request);
        $scene = $bench->scene();
        [$parked, $there] = DeskChange::on($bench, static function (Desk $desk) use ($mode, $scene, $slot): array {
            $parked = $desk->parked()->pick($slot);
            if ($parked->count() === 0) {
                throw new Refused("Nothing is parked in slot $slot. Pick objects, then park them there with Alt+Shift+$slot.");
            }
            $there = $parked->rows($scene);
            $whole = $parked->count() === $there->count();
            $desk->putPick(
                $mode->of($desk->pick(), $whole ? $parked : Pick::ofBits($scene->numberBits($there)), \VineShelf\Scene\Bits::none(0)),
            );

            return [$parked->count(), $there->count()];
        });
        $gone = $parked - $there;

        return Answer::to($bench, $request)
            ->saying(
                "Slot $slot: ".
                    number_format($there).
                    ' picked'.
                    ($gone > 0 ? ', '.number_format($gone).' are gone from the project' : '').
                    '.',
            )
            ->send();
    }
}
