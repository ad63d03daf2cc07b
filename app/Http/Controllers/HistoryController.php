<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Changes\History;
use App\Changes\Turned;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Changes are taken back and done again: the one that the button names, or else it says what happened to it. */
final class HistoryController
{
    public function __construct(private readonly History $history) {}

    public function undo(Request $request, Bench $bench): Response
    {
        return $this->turned($request, $bench, $this->history->undo($bench, self::meant($request)));
    }

    public function redo(Request $request, Bench $bench): Response
    {
        return $this->turned($request, $bench, $this->history->redo($bench, self::meant($request)));
    }

    private function turned(Request $request, Bench $bench, Turned $turned): Response
    {
        $bench->refresh();

        return Answer::to($bench, $request)->turning($turned)->send();
    }

    private static function meant(Request $request): ?int
    {
        $given = $request->validate(['change' => ['nullable', 'integer', 'min:1', 'max:999999999999']]);

        return isset($given['change']) ? (int) $given['change'] : null;
    }
}
