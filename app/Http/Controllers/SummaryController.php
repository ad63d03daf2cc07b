<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Overview\Earlier;
use App\Overview\Summary;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Carbon;
use Illuminate\View\View;

/** How a project is sorted, to be printed or read into a spreadsheet. */
final class SummaryController
{
    public function show(Request $request, Bench $bench): View
    {
        $since = self::since($request, $bench);

        return view('summary', [
            'bench' => $bench,
            'project' => $bench->project,
            'summary' => Summary::of($bench, $since),
            'since' => $since,
            'first' => Earlier::first($bench) ?? $bench->project->created_at,
        ]);
    }

    public function file(Request $request, Bench $bench): Response
    {
        $since = self::since($request, $bench);
        $name = preg_replace('~[^\p{L}\p{N} _-]+~u', ' ', $bench->project->name).' sorting.csv';

        return response(Summary::of($bench, $since)->csv($since !== null), 200, [
            'Content-Type' => 'text/csv; charset=UTF-8',
            'Content-Disposition' => "attachment; filename*=UTF-8''".rawurlencode($name),
        ]);
    }

    /** The end of the day that it is compared with; null for none. */
    private static function since(Request $request, Bench $bench): ?Carbon
    {
        $given = $request->validate(['since' => ['nullable', 'date_format:Y-m-d', 'after:1970-01-01', 'before_or_equal:today']]);
        if (($given['since'] ?? '') === '') {
            return null;
        }
        $day = Carbon::parse((string) $given['since'])->endOfDay();
        $first = Earlier::first($bench);

        return $first !== null && $day->lessThan($first) ? $first : $day;
    }
}
