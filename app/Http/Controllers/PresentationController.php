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

/** Views of a project walked through, one after the other, by somebody who may see all of it. Nothing here changes a desk. */
final class PresentationController
{
    private const AS_KEPT = 'desk,';

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
            'other' => route('walk', [
                $bench->project,
                self::without($views) === $views ? self::AS_KEPT.$views : self::without($views),
            ]),
            'asPictures' => self::without($views) === $views,
            'materials' => Surfaces::of($bench->project),
            'budget' => json_encode(Budget::most()),
        ]);
    }

    /** Placements of what any of the steps shows, in parts as {@see Presentation::records()} gives them. */
    public function records(Request $request, Bench $bench, string $views): Response
    {
        $part = (int) $request->validate(['part' => ['required', 'integer', 'between:0,1000000']])['part'];

        return response(self::presentation($bench, $views)->records($part), 200, [
            'Content-Type' => 'application/x-shelf-records',
            'Cache-Control' => 'no-store',
        ]);
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

    /** @throws Refused */
    private static function presentation(Bench $bench, string $views): Presentation
    {
        return new Presentation($bench, self::numbers($bench, self::without($views)), asPictures: self::without($views) === $views);
    }

    /** Which views are meant, whichever state they are shown in: after "desk," the one that they keep for the desk. */
    private static function without(string $views): string
    {
        return str_starts_with($views, self::AS_KEPT) ? substr($views, strlen(self::AS_KEPT)) : $views;
    }

    /**
     * @param string $views "all", or keys of views and folders of them with commas between
     *
     * @return non-empty-list<int>
     *
     * @throws Refused
     */
    public static function numbers(Bench $bench, string $views): array
    {
        $numbers = $views === 'all' ? $bench->shelf()->within(0) : ViewsController::numbers($bench, $views);
        abort_if($numbers === [], 404);

        return $numbers;
    }
}
