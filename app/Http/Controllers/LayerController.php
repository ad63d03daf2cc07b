<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Changes\ChangeLayer;
use App\Changes\ChangeObjects;
use App\Changes\CreateLayer;
use App\Changes\DeleteLayer;
use App\Changes\FileObjects;
use App\Changes\History;
use App\Models\Desk;
use App\Models\Project;
use App\Models\ProjectObject;
use App\Workbench\Answer;
use App\Workbench\Bench;
use App\Workbench\Keys;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;

/** Sorting: layers come, change and go; objects are filed, locked and renamed. */
final class LayerController
{
    public function __construct(private readonly History $history) {}

    public function store(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $objects = $request->boolean('from_pick') ? $bench->pick()->numbers() : [];
        $command = $this->history->carryOut($project, $bench->person, static fn (Project $held): CreateLayer => new CreateLayer(
            $held,
            $request->string('name')->value(),
            $request->integer('parent'),
            $objects,
            $bench->scene(),
            $bench->inEffect(),
        ));

        return Answer::to($bench, $request)->after($command, '')->with(['focus' => "L$command->number"])->send();
    }

    public function update(Request $request, Project $project, int $layer): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $command = $this->history->carryOut($project, $bench->person, static fn (Project $held): ChangeLayer => $request->has('name')
            ? ChangeLayer::rename($held, $held->layerTree(), $layer, $request->string('name')->value())
            : ChangeLayer::colour($held->layerTree(), $layer, $request->string('colour')->lower()->value()));

        return Answer::to($bench, $request)->after($command, '')->with(['focus' => "L$layer"])->send();
    }

    /** Asks where the layer's objects go. */
    public function ask(Request $request, Project $project, int $layer): View
    {
        $bench = Bench::of($project, WorkbenchController::person($request));

        return view('workbench.delete-layer', ['bench' => $bench, 'layer' => $bench->layers()->get($layer), 'objects' => $bench->contents()->objects($layer), 'held' => $this->heldElsewhere($bench, $layer)]);
    }

    public function destroy(Request $request, Project $project, int $layer): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $target = $request->string('target')->value() === 'delete' ? null : $request->integer('target', Layer::UNSORTED);
        $command = $this->history->carryOut($project, $bench->person, static fn (Project $held): DeleteLayer => new DeleteLayer($held, $layer, $target, $bench->scene(), $bench->inEffect()));
        Desk::query()->where('project_id', $project->id)->where('landing_layer', $layer)->update(['landing_layer' => $target ?? Layer::UNSORTED]);

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    /** Offers the layers that the pick can be filed under. */
    public function choose(Request $request, Project $project): View
    {
        return view('workbench.file-under', ['bench' => Bench::of($project, WorkbenchController::person($request))]);
    }

    public function file(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $keys = Keys::in($request);
        $objects = $keys->objects === [] ? $bench->pick()->numbers() : $keys->objects;
        $layer = $request->integer('layer');
        $withHeld = $request->boolean('with_held', true);
        $command = $this->history->carryOut($project, $bench->person, static fn (Project $held): FileObjects => new FileObjects($objects, $held->layerTree()->get($layer), $bench->scene(), $bench->inEffect(), $withHeld));

        return Answer::to($bench, $request)->after($command, $objects === [] ? 'Nothing is picked.' : 'Everything picked is there already.')->send();
    }

    public function lock(Request $request, Project $project): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        $lock = Lock::from((int) $request->validate(['lock' => ['required', 'integer', 'between:0,2']])['lock']);
        $keys = Keys::in($request);
        $command = $this->history->carryOut($project, $bench->person, static fn (Project $held): ChangeLayer|ChangeObjects => $keys->layers !== []
            ? ChangeLayer::lock($held->layerTree(), $keys->layers, $lock)
            : ChangeObjects::lock($keys->objects === [] ? $bench->pick()->numbers() : $keys->objects, $lock, $bench->scene()));

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    public function rename(Request $request, Project $project, int $object): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));
        /** @var ProjectObject $found */
        $found = $project->objects()->where('no', $object)->where('gone', false)->firstOrFail();
        $command = $this->history->carryOut($project, $bench->person, static fn (Project $held): ChangeObjects => ChangeObjects::rename($found, $request->string('name')->value(), $bench->scene(), $bench->inEffect()));

        return Answer::to($bench, $request)->after($command, '')->with(['focus' => "O$object"])->send();
    }

    public function undo(Request $request, Project $project): Response
    {
        $change = $this->history->undo($project);

        return $this->turned($request, $project, $change === null ? 'Nothing to undo.' : "Undone: $change->name.");
    }

    public function redo(Request $request, Project $project): Response
    {
        $change = $this->history->redo($project);

        return $this->turned($request, $project, $change === null ? 'Nothing to redo.' : "Redone: $change->name.");
    }

    private function turned(Request $request, Project $project, string $message): Response
    {
        $bench = Bench::of($project, WorkbenchController::person($request));

        return Answer::to($bench, $request)->saying($message)->send();
    }

    /** Objects of other layers that would go with the layer's objects, because those hold them. */
    private function heldElsewhere(Bench $bench, int $layer): int
    {
        $rows = [];
        foreach ($bench->contents()->ranges($layer) as [$first, $last]) {
            array_push($rows, ...range($first, $last));
        }
        $all = 0;
        foreach ($bench->scene()->subtrees($rows) as [$first, $last]) {
            $all += $last - $first + 1;
        }

        return $all - count($rows);
    }
}
