<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Presenting\Presentation;
use App\Presenting\Step;
use App\Workbench\Budget;
use App\Workbench\CutDrawing;
use App\Workbench\Surfaces;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;

/** A page where pictures of views are drawn, each view by itself on the desk of whoever asks. Nothing here changes a desk. */
final class PicturesController
{
    public function show(Bench $bench, string $views): View
    {
        return view('pictures', [
            'project' => $bench->project,
            'views' => self::stills($bench, $views, false)->views,
            'folder' => self::folder($bench, $views),
            'address' => route('pictures', [$bench->project, $views]),
            'materials' => Surfaces::of($bench->project),
            'budget' => json_encode(Budget::most()),
        ]);
    }

    public function step(Request $request, Bench $bench, string $views, int $step): JsonResponse
    {
        return new JsonResponse((new Step(self::still($request, $bench, $views, $step), $step))->toArray());
    }

    /** The cut faces of what a picture shows, as {@see CutDrawing::bytes()} lays them out. */
    public function faces(Request $request, Bench $bench, string $views, int $step): Response
    {
        return response((new CutDrawing(self::still($request, $bench, $views, $step)->at($step)))->bytes(), 200, [
            'Content-Type' => 'application/octet-stream',
            'Cache-Control' => 'no-store',
        ]);
    }

    /** @throws Refused */
    private static function still(Request $request, Bench $bench, string $views, int $step): Presentation
    {
        $of = $request->validate(['of' => ['required', 'in:desk,output']])['of'];
        $stills = self::stills($bench, $views, $of === 'output');
        abort_unless($step < $stills->count(), 404);

        return $stills;
    }

    /** @throws Refused */
    private static function stills(Bench $bench, string $views, bool $asPictures): Presentation
    {
        $numbers = PresentationController::numbers($bench, $views);

        return new Presentation($bench, $numbers, $asPictures, byItself: true);
    }

    /** What several pictures together are called: their folder, where they are asked for by one; else the project. */
    private static function folder(Bench $bench, string $views): string
    {
        $folder = preg_match('/^F(\d{1,9})$/D', $views, $found) === 1 ? $bench->shelf()->folders[(int) $found[1]] ?? null : null;

        return $folder->name ?? $bench->project->name;
    }
}
