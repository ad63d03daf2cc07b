<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Targets;
use App\Changes\ChangeOrganizer;
use App\Changes\CreateLayer;
use App\Changes\DeleteLayer;
use App\Changes\History;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
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

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['focus' => "L$command->number"])
            ->send();
    }

    public function update(Request $request, Bench $bench, int $layer): Response
    {
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeOrganizer => $request->has('name')
                ? ChangeOrganizer::rename($held, "L$layer", $request->string('name')->value())
                : ChangeOrganizer::colour($held, "L$layer", $request->string('colour')->lower()->value()),
        );

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['focus' => "L$layer"])
            ->send();
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
        $command = $this->history->carryOut($bench, static fn (Bench $held): DeleteLayer => new DeleteLayer($held, $layer, $target));
        DeskChange::land($bench->project->id, $layer, $target ?? Layer::UNSORTED);

        return Answer::to($bench, $request)->after($command, '')->send();
    }
}
