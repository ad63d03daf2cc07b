<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Changes\ChangeLayer;
use App\Changes\ChangeObjects;
use App\Changes\History;
use App\Models\Project;
use App\Workbench\Answer;
use App\Workbench\Bench;
use App\Workbench\DeskSteps;
use App\Workbench\WhyText;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Why\Cause;
use VineShelf\Why\Why;

/** Says why an object is drawn and locked as it is, and mends it. */
final class WhyController
{
    public function show(Request $request, Project $project, int $object): View
    {
        $bench = Bench::of($project, WorkbenchController::person($request));

        return view('workbench.why', $this->parts($bench, $object));
    }

    public function mend(Request $request, Project $project, int $object, History $history): Response
    {
        $given = $request->validate(['what' => ['required', 'in:layer,object,isolation,all'], 'number' => ['nullable', 'integer'], 'part' => ['nullable', 'in:rung,lock']]);
        $bench = Bench::of($project, WorkbenchController::person($request));
        $why = $this->why($bench, $object);
        $chosen = array_values(array_filter($why->causes, static fn (Cause $cause): bool => $given['what'] === 'all' || $cause->what === $given['what'] && $cause->number === (int) ($given['number'] ?? 0)));
        $part = $given['part'] ?? null;
        $rungs = $part === 'lock' ? [] : array_filter($chosen, static fn (Cause $cause): bool => $cause->rung !== null);
        $locks = $part === 'rung' ? [] : array_filter($chosen, static fn (Cause $cause): bool => $cause->lock !== null);
        foreach (['layer', 'object'] as $what) {
            $numbers = array_values(array_map(static fn (Cause $cause): int => $cause->number, array_filter($locks, static fn (Cause $cause): bool => $cause->what === $what)));
            if ($numbers !== []) {
                $history->carryOut($project, $bench->person, static fn (Project $held): ChangeLayer|ChangeObjects => $what === 'layer'
                    ? ChangeLayer::lock($held->layerTree(), $numbers, Lock::Open)
                    : ChangeObjects::lock($numbers, Lock::Open, $bench->scene()));
            }
        }
        if ($part !== 'lock' && array_filter($chosen, static fn (Cause $cause): bool => $cause->what === 'isolation') !== []) {
            \App\Models\Desk::query()->where('project_id', $project->id)->where('user_id', $bench->person->id)->update(['isolated' => null, 'revision' => $bench->desk->revision + 1]);
        }
        $rungs = array_filter($rungs, static fn (Cause $cause): bool => $cause->what !== 'isolation');
        if ($rungs !== []) {
            $name = (new WhyText($bench))->name($bench->scene()->row($object));
            DeskSteps::take($bench->desk, "Raise $name", static function (Settings $desk) use ($rungs): Settings {
                foreach ($rungs as $cause) {
                    $desk = $cause->what === 'layer' ? $desk->withLayers([$cause->number], Rung::Full) : $desk->withObjects([$cause->number], Rung::Full);
                }

                return $desk;
            });
        }
        $bench->refresh();
        $after = $this->why($bench, $object);
        $name = (new WhyText($bench))->name($bench->scene()->row($object));

        return Answer::to($bench, $request)->saying("$name now {$after->rung->state()}.", $rungs !== [] ? 'desk' : 'project')->with(['why' => $object])->send();
    }

    private function why(Bench $bench, int $object): Why
    {
        $row = $bench->scene()->row($object);
        abort_if($row === 0, 404);

        return Why::of($row, $bench->scene(), $bench->layers(), $bench->settings(), $bench->inEffect(), $bench->isolation());
    }

    /** @return array<string, mixed> */
    private function parts(Bench $bench, int $object): array
    {
        return ['bench' => $bench, 'object' => $object, 'why' => $this->why($bench, $object), 'text' => new WhyText($bench)];
    }
}
