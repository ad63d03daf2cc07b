<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Keys;
use App\Bench\Refused;
use App\Ledger\Ledger;
use App\Models\Desk;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Pick;

/** Looking at some objects alone. */
final class IsolationController
{
    private const RESTS = ['hidden' => Rung::Hidden, 'ghost' => Rung::Ghost, 'box' => Rung::Box];

    /** Looks at the pick, at rows or at what a rule finds alone, one step deeper each time; with "turn", once more goes back. */
    public function isolate(Request $request, Bench $bench): Response
    {
        $rest = self::rest($request, 'hidden');
        $scene = $bench->scene();
        $keys = Keys::in($request);
        $objects = match (true) {
            $request->boolean('found') => Pick::ofBits($scene->numberBits(Ledger::asked($bench, $request)->hits())),
            $request->string('keys')->value() === '' => $bench->pick(),
            default => Pick::ofBits($scene->numberBits(Pick::of($keys->objects)->rows($scene)->or($keys->heldIn($bench)))),
        };
        if ($objects->count() === 0) {
            throw new Refused('There is nothing to look at alone; pick objects first.');
        }
        $turns = $request->boolean('turn');
        $isBack = DeskChange::on($bench, static function (Desk $desk) use ($objects, $rest, $turns): bool {
            // It is the desk that something is looked at alone on.
            $desk->shows_output = false;
            $now = $desk->isolation();
            if ($turns && $now->isOn() && $now->objects()->pack() === $objects->pack()) {
                $desk->putIsolation($now->back());

                return true;
            }
            $desk->putIsolation($now->deeper($objects, $rest));

            return false;
        });
        if ($isBack) {
            return Answer::to($bench, $request)
                ->saying($bench->isolation()->isOn() ? 'One step back.' : 'Everything is back as it was.')
                ->send();
        }
        $state = [Rung::Hidden->value => 'hidden', Rung::Box->value => 'at most a box'][$rest->value] ?? 'at most a ghost';

        return Answer::to($bench, $request)
            ->saying(number_format($objects->count())." isolated; the rest is $state.")
            ->send();
    }

    /** One step out of isolation, or all of them; or another rung for the rest. */
    public function back(Request $request, Bench $bench): Response
    {
        $rest = $request->has('rest') ? self::rest($request, '') : null;
        $all = $request->boolean('all');
        [$before, $after] = DeskChange::on($bench, static function (Desk $desk) use ($rest, $all): array {
            $before = $desk->isolation();
            $after = match (true) {
                $rest !== null => $before->withRest($rest),
                $all => Isolation::none(),
                default => $before->back(),
            };
            $alone = $rest === null ? 0 : $desk->alone_layer;
            $desk->putIsolation($after);
            $desk->alone_layer = $alone;

            return [$before, $after];
        });

        return Answer::to($bench, $request)
            ->saying(
                match (true) {
                    ! $before->isOn() => 'Nothing is isolated.',
                    ! $after->isOn() => 'Everything is back as it was.',
                    $rest !== null => '',
                    default => 'One step back: '.number_format($after->objects()->count()).' isolated.',
                },
            )
            ->send();
    }

    /** @throws Refused */
    private static function rest(Request $request, string $otherwise): Rung
    {
        $asked = $request->string('rest')->value() ?: $otherwise;

        return self::RESTS[$asked] ?? throw new Refused('The rest can be hidden, box or ghost.', 'rest');
    }
}
