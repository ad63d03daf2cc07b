<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Groups;
use App\Bench\Keys;
use App\Bench\Refused;
use App\Bench\Side;
use App\Bench\Targets;
use App\Changes\Command;
use App\Changes\History;
use App\Changes\RaiseInPictures;
use App\Changes\SetLocks;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\DeskSteps;
use App\Workbench\HeldDown;
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
use VineShelf\Why\Holder;
use VineShelf\Why\Holders;

/** Says what holds the objects of rows or of the pick down, and mends it: each cause alone, or all together. */
final class WhyRowsController
{
    public function show(Request $request, Bench $bench): View
    {
        $side = self::side($request, $bench);
        $targets = Targets::in($request, $bench);
        $rows = $targets->reached($bench);
        $levels = $side->inEffect->rungs();

        return view('workbench.why-rows', [
            'bench' => $bench,
            'side' => $side,
            'asked' => $request->only(['keys', 'on', 'words']),
            'name' => self::name($request, $bench, $targets),
            'objects' => $rows->count(),
            'lowered' => $rows->without($levels->being(Rung::Full->value))->count(),
            'protected' => $rows->without($bench->inEffect()->locks()->being(Lock::Open->value))->count(),
            'holders' => self::holders($side, $bench, $rows),
            'text' => new WhyText($bench, $side->isOutput),
        ]);
    }

    public function mend(Request $request, Bench $bench, History $history): Response
    {
        $given = $request->validate([
            'what' => ['required', 'in:layer,filed,tag,folder,own,group,isolation,ceiling,all'],
            'number' => ['nullable', 'integer'],
            'part' => ['required', 'in:rung,lock'],
            'only_in_view' => ['nullable', 'boolean'],
        ]);
        $isOutput = self::side($request, $bench)->isOutput;
        $isAll = $given['what'] === 'all';
        $isMeant = static fn (Holder $holder): bool => ($isAll ||
                ($holder->what === $given['what'] && $holder->number === (int) ($given['number'] ?? 0))) &&
            ($given['part'] === 'rung' ? $holder->rung : $holder->lock) !== null;
        $chosen = static fn (Bench $bench): array => array_values(
            array_filter(
                self::holders($bench->side($isOutput), $bench, Targets::in($request, $bench)->reached($bench)),
                $isMeant,
            ),
        );
        if ($chosen($bench) === []) {
            throw new Refused('That does not hold any of them any more.', 'what');
        }
        if ($given['part'] === 'lock') {
            Gate::authorize('change', $bench->project);
            $command = $history->carryOut(
                $bench,
                static fn (Bench $held): SetLocks => new SetLocks($held, self::meant($held, $chosen($held)), Lock::Open),
            );

            return Answer::to($bench, $request)->after($command, 'It is open already.')->send();
        }
        if ($isOutput) {
            Gate::authorize('change', $bench->project);
            $command = $history->carryOut(
                $bench,
                static fn (Bench $held): RaiseInPictures => new RaiseInPictures(
                    $held,
                    self::meant($held, $chosen($held)),
                    $request->boolean('only_in_view'),
                ),
            );

            return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
        }

        return $this->raise($request, $bench, $chosen($bench), $isAll);
    }

    /** @param list<Holder> $holders */
    private function raise(Request $request, Bench $bench, array $holders, bool $isAll): Response
    {
        $what = $isAll ? self::name($request, $bench, Targets::in($request, $bench)) : (new WhyText($bench))->holder($holders[0]);
        $ends = array_filter($holders, static fn (Holder $holder): bool => $holder->what === 'isolation') !== [];
        $scene = $bench->scene();
        $locked = $bench->inEffect()->locked();
        $left = Bits::none($scene->count());
        foreach ($holders as $holder) {
            $left = $holder->setters === null ? $left : $left->or($holder->setters->and($locked));
        }
        $changed = DeskSteps::take(
            $bench,
            'Raise '.lcfirst($what),
            static fn (Settings $desk): Settings => self::raised(
                $desk,
                $holders,
                static fn (Bits $rows): Bits => $scene->numberBits($rows->without($locked)),
            ),
            static fn (Desk $desk) => $ends ? $desk->putIsolation(Isolation::none()) : null,
        );
        $rows = Targets::in($request, $bench)->reached($bench);

        return Answer::to($bench, $request)
            ->saying(
                trim(($isAll ? "$what: raised." : "$what no longer holds them down.").' '.Command::lockedInWords($left->count())),
                $changed ? 'desk' : '',
            )
            ->held($isAll ? HeldDown::below($bench, $bench->side(false), $rows, Rung::Full) : null)
            ->send();
    }

    /** @param list<Holder> $holders @param \Closure(Bits): Bits $numbers */
    private static function raised(Settings $desk, array $holders, \Closure $numbers): Settings
    {
        foreach ($holders as $holder) {
            $desk = match ($holder->what) {
                'layer' => $desk->withLayers([$holder->number], Rung::Full),
                'filed' => $desk->withLayersAlone([$holder->number], null),
                'tag' => $desk->withTags([$holder->number], Rung::Full),
                'ceiling' => $desk->withCeiling(Rung::Full),
                'folder' => $desk->withFolders([$holder->number], Rung::Full),
                'own', 'group' => $holder->setters === null ? $desk : $desk->withObjects($numbers($holder->setters), Rung::Full),
                default => $desk,
            };
        }

        return $desk;
    }

    /** @param list<Holder> $holders */
    private static function meant(Bench $bench, array $holders): Targets
    {
        $rows = Bits::none($bench->scene()->count());
        $numbers = ['layer' => [], 'tag' => [], 'folder' => []];
        foreach ($holders as $holder) {
            $rows = $holder->setters === null ? $rows : $rows->or($holder->setters);
            $what = $holder->what === 'filed' ? 'layer' : $holder->what;
            if (isset($numbers[$what])) {
                $numbers[$what][] = $holder->number;
            }
        }

        return Targets::of($numbers['layer'], $rows, $numbers['tag'], $numbers['folder']);
    }

    private static function side(Request $request, Bench $bench): Side
    {
        return $bench->side($request->string('side')->value() === 'output');
    }

    /** @return list<Holder> */
    private static function holders(Side $side, Bench $bench, Bits $rows): array
    {
        return Holders::of($rows, $bench->scene(), $bench->organizers(), $side->settings, $side->isolation);
    }

    /** What is meant, in words: the name of one row, or how many of what. */
    private static function name(Request $request, Bench $bench, Targets $targets): string
    {
        $groups = Keys::in($request)->groups;
        $group = count($groups) === 1 && Keys::in($request)->layers === [] && Keys::in($request)->objects === []
            ? (new Groups($bench))->named($groups[0])
            : null;

        return $group === null || $group->name === '' ? $targets->inWords($bench) : $group->name;
    }
}
