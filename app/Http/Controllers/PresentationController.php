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
use VineShelf\Scene\Bits;
use VineShelf\Scene\Drawn;

/** Views of a project walked through, one after the other, by somebody who may see all of it. Nothing here changes a desk. */
final class PresentationController
{
    /** Rows per answer of the whole. */
    private const PART = 40_000;

    public function show(Bench $bench, string $views): View
    {
        $presentation = self::presentation($bench, $views);
        $base = route('walk', [$bench->project, $views]);

        return view('present', [
            'title' => $bench->project->name,
            'presentation' => $presentation,
            'address' => $base,
            'shared' => route('workbench', $bench->project),
            'revision' => $bench->project->revision,
            'back' => route('workbench', $bench->project),
            'link' => null,
            'materials' => Surfaces::of($bench->project),
            'budget' => json_encode(Budget::most()),
        ]);
    }

    /** Placements of what any of the steps shows, in parts as {@see CanvasController::records()} gives them. */
    public function records(Request $request, Bench $bench, string $views): Response
    {
        $part = (int) $request->validate(['part' => ['required', 'integer', 'between:0,1000000']])['part'];
        $scene = $bench->scene();
        $shown = self::presentation($bench, $views)->shown();
        [$parts, $first, $last] = self::part($scene->count(), $part);
        $ranges = $first > $last ? [] : $shown->and(Bits::ofRanges($scene->count(), [[$first, $last]]))->ranges();

        return response(pack('V', $parts).Drawn::of($scene, $ranges), 200, [
            'Content-Type' => 'application/x-shelf-records',
            'Cache-Control' => 'no-store',
        ]);
    }

    /** @return array{int, int, int} how many parts there are, and first and last row of one; part 0 has none */
    public static function part(int $rows, int $part): array
    {
        return [(int) ceil($rows / self::PART), max(1, ($part - 1) * self::PART + 1), min($rows, $part * self::PART)];
    }

    public function step(Bench $bench, string $views, int $step): JsonResponse
    {
        $presentation = self::presentation($bench, $views);
        abort_unless($step < $presentation->count(), 404);

        return new JsonResponse((new Step($presentation, $step))->toArray());
    }

    /** The cut faces of what a step shows, as {@see CutDrawing::bytes()} lays them out. */
    public function faces(Bench $bench, string $views, int $step): Response
    {
        $presentation = self::presentation($bench, $views);
        abort_unless($step < $presentation->count(), 404);

        return response((new CutDrawing($presentation->at($step)))->bytes(), 200, [
            'Content-Type' => 'application/octet-stream',
            'Cache-Control' => 'no-store',
        ]);
    }

    /** @param string $views "all", or keys of views and folders of them with commas between @throws Refused */
    private static function presentation(Bench $bench, string $views): Presentation
    {
        $numbers = $views === 'all' ? $bench->shelf()->within(0) : ViewsController::numbers($bench, $views);
        abort_if($numbers === [], 404);

        return new Presentation($bench, $numbers);
    }
}
