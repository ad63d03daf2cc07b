<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Changes\SwapMeshes;
use App\Jobs\Coarsen;
use App\Lighten\Replacing;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Coarser meshes in place of those that are too fine, finer ones back, and one in place of many that are alike. */
final class MeshController
{
    private const NUMBERS = ['required', 'string', 'max:2200', 'regex:~^\d{1,9}(,\d{1,9})*$~D'];

    public function coarser(Request $request, Bench $bench): Response
    {
        return self::answer($request, $bench, (new Replacing($bench))->coarser(self::numbers($request)));
    }

    public function finer(Request $request, Bench $bench): Response
    {
        return self::answer($request, $bench, (new Replacing($bench))->finer(self::numbers($request)));
    }

    public function share(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['hashes' => ['required', 'string', 'max:4000', 'regex:~^[0-9a-f]{32}(,[0-9a-f]{32})*$~D']]);

        return self::answer($request, $bench, (new Replacing($bench))->shared(explode(',', (string) $given['hashes'])));
    }

    /** @return list<int> */
    private static function numbers(Request $request): array
    {
        return array_map(intval(...), explode(',', (string) $request->validate(['meshes' => self::NUMBERS])['meshes']));
    }

    private static function answer(Request $request, Bench $bench, SwapMeshes $command): Response
    {
        // The new ones get coarser versions as well.
        $command->change === null || Coarsen::dispatch($bench->project->id);

        return Answer::to($bench, $request)->after($command, '')->send();
    }
}
