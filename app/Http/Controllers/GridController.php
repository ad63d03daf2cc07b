<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\History;
use App\Changes\SetInViews;
use App\Ledger\Block;
use App\Ledger\GridSheet;
use App\Workbench\Answer;
use App\Workbench\DeskSteps;
use App\Workbench\RungAsked;
use App\Workbench\RungsOf;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Turn;

/** The ledger widened over views: what views keep for rows is set, copied and pasted, a block at a time. */
final class GridController
{
    private const LONGEST_SHEET = 8_000_000;

    public function __construct(private readonly History $history) {}

    /** The rows of a block get a rung in its columns, or nothing. */
    public function set(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['rung' => ['required', RungAsked::RULE]]);
        $rung = RungAsked::named((string) $given['rung']);
        $block = Block::in($request, $bench);
        $before = $bench->inEffect()->rungs();
        $onDesk = $block->hasDesk ? $this->onDesk($bench, Targets::named(Keys::of($block->keys()), $bench), $rung) : null;
        $command = null;
        if ($block->views !== [] || $block->hasPictures) {
            $command = $this->history->carryOut($bench, static function (Bench $held) use ($request, $rung): SetInViews {
                $block = Block::in($request, $held);

                return SetInViews::set($held, Targets::named(Keys::of($block->keys()), $held), $block->views, $rung, $block->hasPictures);
            });
        }

        return $this->answer($request, $bench, $command, $onDesk)->held($onDesk?->held($bench, $before))->send();
    }

    /** What the desk or a view says of the rows of a block, its views say as well. */
    public function copy(Request $request, Bench $bench): Response
    {
        $from = $request->string('source')->value();
        $command = $this->history->carryOut($bench, static function (Bench $held) use ($request, $from): SetInViews {
            $block = Block::in($request, $held);
            $targets = Targets::named(Keys::of($block->keys()), $held);
            if ($from === 'D') {
                return SetInViews::copy($held, $targets, $block->views, $held->kept(), 'the desk');
            }
            $view = preg_match('~^V\d{1,9}$~D', $from) === 1 ? $held->shelf()->members[(int) substr($from, 1)] ?? null : null;
            if ($view === null || ! $view->keepsRungs()) {
                throw new Refused('Say which view, or the desk, is copied from; it has to keep rungs.', 'source');
            }

            return SetInViews::copy($held, $targets, $block->views, $view->settings(), $view->name);
        });

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** Cells of a block as text: a line a row, a tab between views. */
    public function cells(Request $request, Bench $bench): Response
    {
        $block = Block::in($request, $bench);

        return response((new GridSheet($bench, $block->views))->cells($block->keys()), 200, [
            'Content-Type' => 'text/plain; charset=UTF-8',
        ]);
    }

    /** Cells that were copied come into a block, again and again where it is larger. */
    public function paste(Request $request, Bench $bench): Response
    {
        $pattern = GridSheet::pattern($request->string('pattern')->value());
        $command = $this->history->carryOut($bench, static function (Bench $held) use ($request, $pattern): SetInViews {
            $block = Block::in($request, $held, count($pattern), count($pattern[0] ?? []));

            return SetInViews::paste($held, $block->keys(), $block->views, $pattern);
        });

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** The grid as comma-separated values: the rows that the ledger has now, the views that it is widened over. */
    public function file(Request $request, Bench $bench): Response
    {
        $views = $bench->arrangement()->views?->views($bench->shelf()) ?? array_values($bench->shelf()->members);
        $sheet = new GridSheet($bench, $views);
        $name = preg_replace('~[^\p{L}\p{N} _-]+~u', ' ', $bench->project->name).' views.csv';

        return response($sheet->file(Block::allKeys($request, $bench)), 200, [
            'Content-Type' => 'text/csv; charset=UTF-8',
            'Content-Disposition' => "attachment; filename*=UTF-8''".rawurlencode($name),
        ]);
    }

    /** Asks for a file of comma-separated values; with one, shows what it would change. */
    public function preview(Request $request, Bench $bench): View
    {
        $text = self::sheet($request);
        if ($text === '' && $request->boolean('chosen')) {
            throw new Refused('The file is empty.', 'sheet');
        }

        return view('workbench.grid-sheet', [
            'bench' => $bench,
            'read' => $text === '' ? null : GridSheet::read($bench, $text),
            'text' => $text,
        ]);
    }

    /** Views keep what a file of comma-separated values says of them. */
    public function read(Request $request, Bench $bench): Response
    {
        $text = self::sheet($request);
        $command = $this->history->carryOut($bench, static function (Bench $held) use ($text): SetInViews {
            $read = GridSheet::read($held, $text);
            if ($read->cells === []) {
                throw new Refused('The file changes nothing.', 'sheet');
            }

            return SetInViews::cells($held, $read->views, $read->cells, 'Read a grid into '.count($read->cells).' views');
        });

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** @throws Refused when it is too long */
    private static function sheet(Request $request): string
    {
        $text = $request->string('sheet')->value();
        if (strlen($text) > self::LONGEST_SHEET) {
            throw new Refused('The file has at most '.intdiv(self::LONGEST_SHEET, 1_000_000).' MB.', 'sheet');
        }

        return $text;
    }

    private function onDesk(Bench $bench, Targets $targets, Rung|Turn|null $rung): ?RungsOf
    {
        $rungs = new RungsOf($bench, $targets, $rung);

        return ! $rungs->isEmpty() && DeskSteps::take($bench, $rungs->name(), $rungs->on(...)) ? $rungs : null;
    }

    private function answer(Request $request, Bench $bench, ?SetInViews $command, ?RungsOf $onDesk): Answer
    {
        $answer = Answer::to($bench, $request);
        if ($command !== null && ($command->change !== null || $onDesk === null)) {
            $answer->after($command, 'It is so already.');
            if ($onDesk === null || $command->change === null) {
                return $answer;
            }

            return $answer->saying("{$command->name()}. On the desk as well. $command->leftAlone", 'both', $command->leftAlone !== '');
        }

        return $answer->saying($onDesk?->said($bench) ?? 'It is so already.', $onDesk === null ? '' : 'desk');
    }
}
