<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\Command;
use App\Changes\GuardAllBut;
use App\Changes\History;
use App\Changes\SetLocks;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\Backdrop;
use App\Workbench\DeskSteps;
use App\Workbench\HeldDown;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Rungs\WholeDesk;
use VineShelf\Scene\Pick;

/** What is done to the desk as a whole, or to all that is picked, in one step that is felt at once. */
final class WholeDeskController
{
    /** Shows only the pick, shows all again, raises everything to Full, or turns shown and hidden round. Isolating ends with each. */
    public function show(Request $request, Bench $bench): Response
    {
        $act = $request->validate(['act' => ['required', 'in:only,shown,full,invert']])['act'];
        $targets = $act === 'only' ? Targets::in($request, $bench)->objectsOnly($bench, 'Pick the objects of the layer first.') : null;
        $whole = new WholeDesk($bench->scene(), $bench->organizers(), $bench->inEffect()->locked());
        $hidden = self::hidden($bench);
        $now = $bench->inEffect()->under($bench->settings(), null);
        $names = ['only' => 'Show only the pick', 'shown' => 'Show all again', 'full' => 'Everything to Full', 'invert' => 'Invert'];
        $isolated = $bench->isolation()->isOn();
        $changed = DeskSteps::take(
            $bench,
            $names[$act],
            static fn (Settings $desk): Settings => match ($act) {
                'shown' => $whole->showAll($desk),
                'full' => $whole->raiseAll($desk),
                'invert' => $whole->inverted($desk, $now->under($desk, null)),
                default => $targets === null ? $desk : $whole->showOnly($desk, $targets),
            },
            static fn (Desk $desk) => $desk->putIsolation(Isolation::none()),
        );
        $left = self::hidden($bench);
        $count = static fn (int $objects): string => number_format($objects).' '.($objects === 1 ? 'object' : 'objects');
        $shown = $bench->scene()->count() - $left;
        $said = match (true) {
            ! $changed => $isolated ? 'Everything is back as it was.' : 'It is so already.',
            $act === 'only' => "{$count($shown)} shown, {$count($left)} hidden.",
            $act === 'shown' => "{$count($hidden - $left)} shown again.",
            $act === 'full' => 'Everything is at Full.',
            default => "Inverted: {$count($shown)} shown, {$count($left)} hidden.",
        };
        $locked = $act === 'only' || $act === 'invert' ? $bench->inEffect()->locked()->count() : 0;

        return Answer::to($bench, $request)
            ->saying(trim("$said ".Command::lockedInWords($locked)), $changed ? 'desk' : '', $locked > 0)
            ->send();
    }

    /** Rows or the pick go one rung higher or lower. */
    public function step(Request $request, Bench $bench): Response
    {
        $way = (int) $request->validate(['way' => ['required', 'in:1,-1']])['way'];
        $targets = Targets::in($request, $bench);
        $locked = $targets->rows->and($bench->inEffect()->locked())->count();
        $whole = new WholeDesk($bench->scene(), $bench->organizers(), $bench->inEffect()->locked());
        $before = $bench->inEffect()->rungs();
        $name = ($way > 0 ? 'One rung higher: ' : 'One rung lower: ').$targets->inWords($bench);
        $changed = DeskSteps::take(
            $bench,
            $name,
            static fn (Settings $desk): Settings => $whole->stepped(
                $desk,
                $targets->layers,
                $targets->tags,
                $targets->folders,
                $targets->rows,
                $way,
            ),
        );
        $said = $changed ? "$name." : ($way > 0 ? 'It is at Full already.' : 'It is hidden already.');
        $reached = $targets->reached($bench);
        $isInVain = $way > 0 && $before->histogramOf($reached) === $bench->inEffect()->rungs()->histogramOf($reached);

        return Answer::to($bench, $request)
            ->saying(trim("$said ".Command::lockedInWords($locked)), $changed ? 'desk' : '', $locked > 0)
            ->held($isInVain ? HeldDown::below($bench, $bench->side(false), $reached, Rung::Full) : null)
            ->send();
    }

    /** The rung that nothing on the desk is above. */
    public function ceiling(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['rung' => ['required', 'integer', 'between:1,5']]);
        $rung = Rung::from((int) $given['rung']);
        $changed = DeskSteps::take(
            $bench,
            $rung === Rung::Full ? 'Lift the ceiling' : "Ceiling: {$rung->label()}",
            static fn (Settings $desk): Settings => $desk->withCeiling($rung),
        );
        $said = $rung === Rung::Full ? 'The ceiling is lifted.' : "Nothing on the desk is drawn above {$rung->label()} now.";

        return Answer::to($bench, $request)
            ->saying($said, $changed ? 'desk' : '')
            ->send();
    }

    /** Each layer alone, one after the other. */
    public function alone(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['way' => ['required', 'in:1,-1'], 'layer' => ['nullable', 'integer']]);
        $layers = array_values(
            array_filter(
                array_map(static fn (array $entry): Layer => $entry[0], $bench->layers()->walk()),
                static fn (Layer $layer): bool => $bench->contents()->objectsWithNested($layer->number) > 0,
            ),
        );
        if ($layers === []) {
            throw new Refused('No layer holds any objects.');
        }
        $numbers = array_map(static fn (Layer $layer): int => $layer->number, $layers);
        $from = $bench->desk->alone_layer > 0 ? $bench->desk->alone_layer : (int) ($given['layer'] ?? 0);
        $at = array_search($from, $numbers, true);
        $next = match (true) {
            $at === false => 0,
            // Where nothing is alone yet, the one that is meant comes first.
            $bench->desk->alone_layer === 0 => $at,
            default => ($at + (int) $given['way'] + count($layers)) % count($layers),
        };
        $layer = $layers[$next];
        $rows = $bench->scene()->layers()->rowsOf(array_fill_keys($bench->layers()->withNested($layer->number), true));
        $objects = Pick::ofBits($bench->scene()->numberBits($rows));
        DeskChange::on($bench, static function (Desk $desk) use ($objects, $layer): void {
            [$before, $rest] =
                $desk->alone_layer > 0 ? [$desk->isolation()->back(), $desk->isolation()->rest()] : [$desk->isolation(), Rung::Hidden];
            // What its groups hold of other layers is not meant.
            $desk->putIsolation($before->deeper($objects, $rest, exactly: true));
            $desk->alone_layer = $layer->number;
            $desk->shows_output = false;
        });

        return Answer::to($bench, $request)
            ->saying($bench->layers()->path($layer->number).' alone, '.($next + 1).' of '.count($layers).'.')
            ->with(['focus' => "L$layer->number"])
            ->send();
    }

    /** Everything but the pick is guarded, or everything is opened. */
    public function locks(Request $request, Bench $bench, History $history): Response
    {
        $act = $request->validate(['act' => ['required', 'in:others,open']])['act'];
        $command = $history->carryOut(
            $bench,
            static fn (Bench $held): Command => $act === 'others'
                ? new GuardAllBut($held, Targets::pick($held)->rows)
                : new SetLocks($held, self::everything($held), Lock::Open),
        );

        return Answer::to($bench, $request)->after($command, 'Everything is so already.')->send();
    }

    /** Rows or the pick become a backdrop, ghosts that are guarded, or are one no longer. */
    public function backdrop(Request $request, Bench $bench, History $history): Response
    {
        $given = $request->validate(['on' => ['nullable', 'boolean']]);
        $keys = static fn (Bench $held): Targets => Targets::in($request, $held);
        $backdrop = new Backdrop($bench, $keys($bench));
        $on = isset($given['on']) ? $request->boolean('on') : ! $backdrop->isOn();
        $command = $history->carryOut($bench, static fn (Bench $held): SetLocks => (new Backdrop($held, $keys($held)))->locks($on));
        $changed = $backdrop->rungs($bench, $on);
        $said = $on ? "{$backdrop->what} is a backdrop: ghosts, and guarded." : "{$backdrop->what} is no backdrop any more.";

        return Answer::to($bench, $request)
            ->after($command, '')
            ->saying(
                trim("$said ".Command::lockedInWords($backdrop->locked)),
                $command->change === null ? ($changed ? 'desk' : '') : ($changed ? 'both' : 'project'),
                $backdrop->locked > 0,
            )
            ->send();
    }

    private static function everything(Bench $bench): Targets
    {
        $locks = $bench->scene()->locks();

        return Targets::of(
            array_map(static fn (array $entry): int => $entry[0]->number, $bench->layers()->walk()),
            $locks->rowsOf([Lock::Guarded->value => true, Lock::Locked->value => true]),
            array_keys($bench->tags()->tree->members),
            array_keys($bench->tags()->tree->folders),
        );
    }

    private static function hidden(Bench $bench): int
    {
        return $bench->inEffect()->rungs()->histogram()[Rung::Hidden->value] ?? 0;
    }
}
