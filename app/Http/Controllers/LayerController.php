<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Keys;
use App\Bench\Landing;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\ClearOut;
use App\Changes\CreateLayer;
use App\Changes\CreateLayers;
use App\Changes\DeleteLayer;
use App\Changes\DeleteLayers;
use App\Changes\EmptyLayer;
use App\Changes\History;
use App\Changes\MergeLayers;
use App\Ledger\Folding;
use App\Models\Desk;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Layers\GroupBy;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Relatives;

/** Layers come, change and go. */
final class LayerController
{
    public function __construct(private readonly History $history) {}

    public function store(Request $request, Bench $bench): Response
    {
        $name = $request->string('name')->value();
        $parent = $request->integer('parent');
        $fromPick = $request->boolean('from_pick');
        $make = static fn (Bench $held): CreateLayer => new CreateLayer(
            $held,
            $name,
            $parent,
            $fromPick ? Targets::pick($held)->rows : null,
        );
        $command = $this->history->carryOut($bench, $make);
        Landing::inNew($bench, $command->number);
        $answer = Answer::to($bench, $request)->after($command, '');
        Folding::reveal($bench, "L$command->number");

        return $answer
            ->with(['focus' => "L$command->number"])
            ->send();
    }

    /** Asks what several layers at once are to be made by. */
    public function askSeveral(Request $request, Bench $bench): View
    {
        return view('workbench.several-layers', [
            'bench' => $bench,
            'count' => Targets::pick($bench)->rows->count(),
            'parent' => $request->integer('parent'),
        ]);
    }

    public function several(Request $request, Bench $bench): Response
    {
        $by =
            GroupBy::tryFrom($request->string('by')->value()) ??
            throw new Refused('Layers can be made by: '.implode(', ', array_column(GroupBy::cases(), 'value')).'.', 'by');
        $parent = $request->integer('parent');
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): CreateLayers => new CreateLayers($held, $by, $parent, Targets::pick($held)->rows),
        );

        if ($command->last > 0) {
            Landing::inNew($bench, $command->last);
        }

        return Answer::to($bench, $request)->after($command, 'All of it is there already.')->send();
    }

    public function empty(Request $request, Bench $bench, int $layer): Response
    {
        $command = $this->history->carryOut($bench, static fn (Bench $held): EmptyLayer => new EmptyLayer($held, $layer));

        return Answer::to($bench, $request)->after($command, 'Nothing is filed under it.')->send();
    }

    /** The layers of the rows become one: the first of them, or the one that is named. */
    public function merge(Request $request, Bench $bench): Response
    {
        $layers = Keys::in($request)->layers;
        $into = $request->integer('into', $layers[0] ?? 0);
        $command = $this->history->carryOut($bench, static fn (Bench $held): MergeLayers => new MergeLayers($held, $layers, $into));

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['focus' => "L$into"])
            ->send();
    }

    /** Asks which of two layers or more stays. */
    public function askMerge(Request $request, Bench $bench): View
    {
        $layers = array_values(array_filter(Keys::in($request)->layers, $bench->layers()->has(...)));
        if (count($layers) < 2) {
            throw new Refused('Choose two layers or more to make one of: Ctrl and a click adds one.', 'keys');
        }

        return view('workbench.merge-layers', ['bench' => $bench, 'layers' => array_map($bench->layers()->get(...), $layers)]);
    }

    /** Shows which layers, tags and sets hold nothing. */
    public function askClear(Bench $bench): View
    {
        return view('workbench.clear-out', ['bench' => $bench, 'command' => new ClearOut($bench, ['layers', 'tags', 'sets'])]);
    }

    public function clear(Request $request, Bench $bench): Response
    {
        $families = array_keys(
            array_filter([
                'layers' => $request->boolean('layers'),
                'tags' => $request->boolean('tags'),
                'sets' => $request->boolean('sets'),
            ]),
        );
        $command = $this->history->carryOut($bench, static fn (Bench $held): ClearOut => new ClearOut($held, $families));

        return Answer::to($bench, $request)->after($command, 'Everything holds something.')->send();
    }

    /** Asks where the objects of several layers go, and whether what is nested in them goes too. */
    public function askDelete(Request $request, Bench $bench): View
    {
        $layers = array_values(array_filter(Keys::in($request)->layers, $bench->layers()->has(...)));
        if ($layers === []) {
            throw new Refused('These layers are no longer there.', 'keys');
        }

        return view('workbench.delete-layers', [
            'bench' => $bench,
            'layers' => array_map($bench->layers()->get(...), $layers),
            'rows' => Keys::in($request)->filedUnder($bench)->count(),
            'nested' => count(array_diff(array_merge(...array_map($bench->layers()->withNested(...), $layers)), $layers)),
        ]);
    }

    public function destroySeveral(Request $request, Bench $bench): Response
    {
        $layers = Keys::in($request)->layers;
        $target = match ($to = $request->string('target', 'above')->value()) {
            'delete' => null,
            'above' => DeleteLayers::ABOVE,
            default => (int) $to,
        };
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): DeleteLayers => new DeleteLayers($held, $layers, $target, $request->boolean('nested')),
        );

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    /** Asks where the layer's objects go. */
    public function ask(Bench $bench, int $layer): View
    {
        $rows = $bench->contents()->rows($layer);
        $held = Relatives::within($bench->scene(), $rows)->count() - $rows->count();

        return view('workbench.delete-layer', [
            'bench' => $bench,
            'layer' => $bench->layers()->get($layer),
            'objects' => $rows->count(),
            'held' => $held,
        ]);
    }

    public function destroy(Request $request, Bench $bench, int $layer): Response
    {
        $target = $request->string('target')->value() === 'delete' ? null : $request->integer('target', Layer::UNSORTED);
        // Asked for where new objects of this person landed in it.
        $landing = $bench->desk->landing_layer === $layer ? $request->integer('landing') : 0;
        if ($landing === $layer || ($landing !== 0 && ! $bench->layers()->has($landing))) {
            throw new Refused('Choose another layer for new objects to land in.', 'landing');
        }
        $command = $this->history->carryOut($bench, static fn (Bench $held): DeleteLayer => new DeleteLayer($held, $layer, $target));
        if ($landing > 0 && $bench->layers()->has($landing)) {
            DeskChange::on($bench, static function (Desk $desk) use ($landing): void {
                $desk->landing_layer = $landing;
            });
        }

        return Answer::to($bench, $request)->after($command, '')->send();
    }
}
