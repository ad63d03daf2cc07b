<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Changes\History;
use App\Changes\RenameObject;
use App\Models\Project;
use App\Workbench\Answer;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** One object: what it is called, and its new name. */
final class ObjectController
{
    /** What the pointer is over. */
    public function about(Project $project, int $object): JsonResponse
    {
        $found = $project
            ->objects()
            ->where('no', $object)
            ->where('gone', false)
            ->firstOrFail(['project_id', 'no', 'name', 'kind', 'layer_no']);
        $layer = $project->layers()->where('no', $found->layer_no)->value('name');

        return new JsonResponse(['name' => $found->name === '' ? 'Unnamed '.$found->kind->label() : $found->name, 'layer' => $layer]);
    }

    public function rename(Request $request, Bench $bench, History $history, int $object): Response
    {
        abort_if($bench->scene()->row($object) === 0, 404);
        $name = $request->string('name')->value();
        $command = $history->carryOut($bench, static fn (Bench $held): RenameObject => new RenameObject($held, $object, $name));

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['focus' => "O$object"])
            ->send();
    }
}
