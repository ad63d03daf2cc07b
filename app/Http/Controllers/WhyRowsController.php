<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Group;
use App\Bench\Groups;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
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
use VineShelf\Why\Holder;
use VineShelf\Why\Holders;

/** Says what holds the objects of a layer, tag, folder or set down, and mends it. */
final class WhyRowsController
{
    public function show(Request $request, Bench $bench, string $row): View
    {
        $side = self::side($request, $bench);
        $organizer = Organizer::named($bench, $row);
        $rows = self::rows($bench, $organizer);
        $levels = $side->inEffect->rungs();

        return view('workbench.why-rows', [
            'bench' => $bench,
            'side' => $side,
            'row' => $organizer,
            'objects' => $rows->count(),
            'lowered' => $rows->without($levels->being(Rung::Full->value))->count(),
            'protected' => $rows->without($bench->inEffect()->locks()->being(Lock::Open->value))->count(),
            'holders' => self::holders($side, $bench, $rows),
            'text' => new WhyText($bench, $side->isOutput),
        ]);
    }

    public function mend(Request $request, Bench $bench, History $history, string $row): Response
    {
        $given = $request->validate([
            'what' => ['required', 'in:layer,filed,tag,folder,own,group,isolation,ceiling'],
            'number' => ['nullable', 'integer'],
            'part' => ['required', 'in:rung,lock'],
            'only_in_view' => ['nullable', 'boolean'],
        ]);
        $isOutput = self::side($request, $bench)->isOutput;
        $isMeant = static fn (Holder $holder): bool => $holder->what === $given['what'] &&
            $holder->number === (int) ($given['number'] ?? 0) &&
            ($given['part'] === 'rung' ? $holder->rung : $holder->lock) !== null;
        $chosen = static fn (Bench $bench): array => array_values(
            array_filter(self::holders($bench->side($isOutput), $bench, self::rows($bench, Organizer::named($bench, $row))), $isMeant),
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
        $text = new WhyText($bench);
        $holders = $chosen($bench);
        $scene = $bench->scene();
        $changed = DeskSteps::take(
            $bench,
            'Raise '.lcfirst($text->holder($holders[0])),
            static fn (Settings $desk): Settings => self::raised($desk, $holders, $scene->numberBits(...)),
            static fn (Desk $desk) => $given['what'] === 'isolation' ? $desk->putIsolation(Isolation::none()) : null,
        );

        return Answer::to($bench, $request)
            ->saying($text->holder($holders[0]).' no longer holds them down.', $changed ? 'desk' : '')
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

    private static function rows(Bench $bench, Organizer $row): Bits
    {
        if ($row->kind === OrganizerKind::Layer) {
            return $bench->scene()->layers()->rowsOf(array_fill_keys($bench->layers()->withNested($row->number), true));
        }
        $group = (new Groups($bench))->named($row->key());

        return $group instanceof Group ? $group->rows() : throw new Refused('That row holds no objects.', 'row');
    }
}
