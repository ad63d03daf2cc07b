<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Side;
use App\Bench\Targets;
use App\Changes\History;
use App\Changes\RaiseInPictures;
use App\Changes\SetLocks;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\DeskSteps;
use App\Workbench\WhyText;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use Illuminate\View\View;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Why\Cause;
use VineShelf\Why\Why;

/** Says why an object is drawn and locked as it is, and mends it. */
final class WhyController
{
    public function show(Request $request, Bench $bench, int $object): View
    {
        $side = self::side($request, $bench);

        return view('workbench.why', [
            'bench' => $bench,
            'object' => $object,
            'side' => $side,
            'why' => self::why($side, $bench, $object),
            'text' => new WhyText($bench, $side->isOutput),
        ]);
    }

    public function mend(Request $request, Bench $bench, History $history, int $object): Response
    {
        $given = $request->validate([
            'what' => ['required', 'in:layer,filed,tag,folder,object,isolation,ceiling,all'],
            'number' => ['nullable', 'integer'],
            'part' => ['nullable', 'in:rung,lock'],
            'only_in_view' => ['nullable', 'boolean'],
        ]);
        $side = self::side($request, $bench);
        $part = $given['part'] ?? '';
        $isMeant = static fn (Cause $cause): bool => $given['what'] === 'all' ||
            ($cause->what === $given['what'] && $cause->number === (int) ($given['number'] ?? 0));
        $chosen = static fn (Bench $bench): array => array_values(
            array_filter(self::why($bench->side($side->isOutput), $bench, $object)->causes, $isMeant),
        );
        if ($part !== 'rung' && array_filter($chosen($bench), static fn (Cause $cause): bool => $cause->lock !== null) !== []) {
            Gate::authorize('change', $bench->project);
            $history->carryOut(
                $bench,
                static fn (Bench $held): SetLocks => new SetLocks($held, self::meant($held, $chosen($held), 'lock'), Lock::Open),
            );
        }
        if ($side->isOutput && $part !== 'lock') {
            return $this->raiseInPictures($request, $history, $bench, $chosen, $object);
        }
        $raised = $part !== 'lock' && $this->raise($bench, $object, $chosen($bench));
        $name = (new WhyText($bench))->name($bench->scene()->row($object));
        $state = self::why($bench->side($side->isOutput), $bench, $object)->rung->state();

        return Answer::to($bench, $request)
            ->saying("$name now $state.", $raised ? 'desk' : 'project')
            ->with(['why' => $object])
            ->send();
    }

    /** @param \Closure(Bench): list<Cause> $chosen */
    private function raiseInPictures(Request $request, History $history, Bench $bench, \Closure $chosen, int $object): Response
    {
        Gate::authorize('change', $bench->project);
        $onlyInView = $request->boolean('only_in_view');
        $command = $history->carryOut(
            $bench,
            static fn (Bench $held): RaiseInPictures => new RaiseInPictures($held, self::meant($held, $chosen($held), 'rung'), $onlyInView),
        );

        return Answer::to($bench, $request)
            ->after($command, 'It is so already.')
            ->with(['why' => $object])
            ->send();
    }

    /** @param list<Cause> $causes @param string $part "rung" or "lock" */
    private static function meant(Bench $bench, array $causes, string $part): Targets
    {
        $numbers = static fn (string $what): array => array_values(
            array_map(
                static fn (Cause $cause): int => $cause->number,
                array_filter($causes, static fn (Cause $cause): bool => $cause->$part !== null && $cause->what === $what),
            ),
        );
        $scene = $bench->scene();

        return Targets::of(
            [...$numbers('layer'), ...$numbers('filed')],
            Bits::ofRows($scene->count(), $scene->rowsOf($numbers('object'))),
            $numbers('tag'),
            $numbers('folder'),
        );
    }

    /** @param list<Cause> $causes @return bool whether a rung changed */
    private function raise(Bench $bench, int $object, array $causes): bool
    {
        $name = (new WhyText($bench))->name($bench->scene()->row($object));
        $ends = array_filter($causes, static fn (Cause $cause): bool => $cause->what === 'isolation') !== [];
        $raise = static function (Settings $desk) use ($causes): Settings {
            foreach ($causes as $cause) {
                $desk = $cause->rung === null ? $desk : $cause->raised($desk);
            }

            return $desk;
        };

        return DeskSteps::take(
            $bench,
            "Raise $name",
            $raise,
            static fn (Desk $desk) => $ends ? $desk->putIsolation(Isolation::none()) : null,
        );
    }

    private static function side(Request $request, Bench $bench): Side
    {
        return $bench->side($request->string('side')->value() === 'output');
    }

    private static function why(Side $side, Bench $bench, int $object): Why
    {
        $row = $bench->scene()->row($object);
        abort_if($row === 0, 404);

        return $side->why($bench, $row);
    }
}
