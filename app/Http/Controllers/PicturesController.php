<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Presenting\LeftOut;
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
    /** @throws Refused */
    public function show(Bench $bench, string $views): View
    {
        return view('pictures', [
            'project' => $bench->project,
            'views' => (new Presentation($bench, PresentationController::numbers($bench, $views)))->views,
            'together' => self::together($bench, $views),
            'materials' => Surfaces::of($bench->project),
            'budget' => json_encode(Budget::most()),
        ]);
    }

    /** What the picture of a view shows, as {@see Step::toArray()} says it, and what it leaves out, as {@see LeftOut} has it. */
    public function still(Request $request, Bench $bench, int $view): JsonResponse
    {
        $alone = self::alone($request, $bench, $view);

        return new JsonResponse((new Step($alone, 0))->toArray() + ['leaves' => (new LeftOut($alone->at(0)))->toArray()]);
    }

    /** The cut faces of what a picture shows, as {@see CutDrawing::bytes()} lays them out. */
    public function faces(Request $request, Bench $bench, int $view): Response
    {
        return response((new CutDrawing(self::alone($request, $bench, $view)->at(0)))->bytes(), 200, [
            'Content-Type' => 'application/octet-stream',
            'Cache-Control' => 'no-store',
        ]);
    }

    /** A view by its number: others may be moved or deleted while the page is open. */
    private static function alone(Request $request, Bench $bench, int $view): Presentation
    {
        $of = $request->validate(['of' => ['required', 'in:desk,output']])['of'];
        abort_unless(isset($bench->shelf()->members[$view]), 404);

        return Presentation::alone($bench, $view, $of === 'output');
    }

    /** What several pictures together are called: their folder, where they are asked for by one; else the project. */
    private static function together(Bench $bench, string $views): string
    {
        $folder = preg_match('/^F(\d{1,9})$/D', $views, $found) === 1 ? $bench->shelf()->folders[(int) $found[1]] ?? null : null;

        return $folder->name ?? $bench->project->name;
    }
}
