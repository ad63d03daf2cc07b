<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Arrangement;
use App\Bench\Bench;
use App\Bench\Column;
use App\Bench\DeskChange;
use App\Bench\Keys;
use App\Bench\LedgerWindows;
use App\Bench\Refused;
use App\Bench\ViewFilter;
use App\Ledger\Ahead;
use App\Ledger\Folding;
use App\Ledger\Homes;
use App\Ledger\Ledger;
use App\Models\Desk;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Rules\Lexer;

/** The ledger's windows, how a person has it open, and where rows stand in it. */
final class LedgerController
{
    private const MOST_ROWS = 5000;

    public function rows(Request $request, Bench $bench): Response
    {
        $ledger = Ledger::asked($bench, $request);
        $error = $ledger->found()->error;
        if ($error !== null) {
            return response()->view('workbench.rule-error', ['error' => $error, 'words' => $ledger->words], 422, ['HX-Reswap' => 'none']);
        }

        // The head of views comes in the same windows as their cells.
        $parts = $ledger->columns->isOn() ? 'workbench.ledger-parts' : 'workbench.rows';

        return response()->view($parts, ['bench' => $bench, 'ledger' => $ledger]);
    }

    /** Folds or unfolds rows, turns to another lens, changes columns or sorting, and answers with the ledger. */
    public function arrange(Request $request, Bench $bench): Response
    {
        DeskChange::on($bench, function (Desk $desk) use ($request, $bench): void {
            LedgerWindows::put($desk, $bench->window, $this->arranged($request, $bench, $bench->arranged($desk)->toArray()));
        });

        return response()->view('workbench.ledger-parts', ['bench' => $bench, 'ledger' => Ledger::asked($bench, $request)]);
    }

    /** A window has another line, or is a copy of another one and goes its own way from now on. */
    public function window(Request $request, Bench $bench): Response
    {
        if ($bench->window === '') {
            throw new Refused('A window is named by 4 to 24 small letters and digits.', 'window');
        }
        LedgerWindows::open($bench->desk, $bench->window, LedgerWindows::named($request->input('like')));
        if ($request->has('line')) {
            LedgerWindows::putLine($bench->desk, $bench->window, mb_substr($request->string('line')->value(), 0, Lexer::LONGEST));
        }

        return response()->noContent();
    }

    /** Asks which columns the ledger is to have. */
    public function columns(Bench $bench): View
    {
        $chosen = $bench->arrangement()->columns;
        $ids = array_map(static fn (Column $column): string => $column->id, $chosen);
        $all = Column::all($bench->propertyNames());
        $others = array_values(array_filter($all, static fn (Column $column): bool => ! in_array($column->id, $ids, true)));

        return view('workbench.columns', ['bench' => $bench, 'chosen' => $chosen, 'others' => $others]);
    }

    /**
     * Where a row stands in the ledger as it is unfolded; for an object that is folded away, where its layer or nearest shown group stands.
     */
    public function place(Request $request, Bench $bench): JsonResponse
    {
        $ledger = Ledger::asked($bench, $request);
        $asked = $request->string('key')->value();
        $key = Keys::isKey($asked) ? $asked : 'L1';
        $place = $ledger->lens()->position($key);
        $row = $key[0] === 'O' ? $bench->scene()->row((int) substr($key, 1)) : 0;
        foreach ($place === null && $row !== 0 ? Homes::of($bench, $ledger->name, $row) : [] as $key) {
            $place = $ledger->lens()->position($key);
            if ($place !== null) {
                break;
            }
        }

        return new JsonResponse(['key' => $key, 'place' => $place]);
    }

    /** Keys of the layers, tags, sets and other rows that are no objects, in a stretch of the ledger. */
    public function keys(Request $request, Bench $bench): JsonResponse
    {
        preg_match('~^(\d{1,9})-(\d{1,9})$~D', $request->string('span')->value(), $span);
        [$from, $to] = [(int) ($span[1] ?? 0), (int) ($span[2] ?? 0)];
        $keys = Ledger::asked($bench, $request)
            ->lens()
            ->keys(min($from, $to), min(self::MOST_ROWS, abs($to - $from) + 1));

        return new JsonResponse(['keys' => array_values(array_filter($keys, static fn (string $key): bool => $key[0] !== 'O'))]);
    }

    /** The next row of the ledger, as it is unfolded, whose name starts with something; from the top again after the last one. */
    public function ahead(Request $request, Bench $bench): JsonResponse
    {
        $starts = mb_strtolower(mb_substr($request->string('starts')->value(), 0, 200));

        return new JsonResponse([
            'place' =>
                $starts === ''
                    ? null
                    : (new Ahead($bench, Ledger::asked($bench, $request)))->place($starts, $request->integer('after', -1)),
        ]);
    }

    /**
     * @param array<string, mixed> $kept an arrangement
     *
     * @return array<string, mixed> what the request makes of it
     */
    private function arranged(Request $request, Bench $bench, array $kept): array
    {
        $unfold = $request->boolean('unfold');
        if (isset(Arrangement::LENSES[$request->string('lens')->value()])) {
            $kept['lens'] = $request->string('lens')->value();
        }
        if ($request->has('fold')) {
            $kept = Folding::folded($kept, Keys::listed($request->string('fold')->value()), $unfold);
        }
        if ($request->boolean('all') || $request->has('depth')) {
            $kept = Folding::toDepth($bench, $kept, $unfold ? ($request->has('depth') ? max(0, $request->integer('depth')) : 1000) : 0);
        }
        if ($request->has('deep')) {
            $kept = Folding::deep($bench, $kept, Keys::listed($request->string('deep')->value()), $unfold);
        }
        if ($request->has('columns')) {
            $columns = json_decode($request->string('columns')->value(), true);
            $kept = ['columns' => is_array($columns) ? $columns : $kept['columns'] ?? [], 'layout' => 0] + $kept;
        }
        if ($request->has('sort')) {
            $by = $request->string('sort')->value();
            $kept = ['sort' => $by === '' ? null : [$by, $request->boolean('down')], 'layout' => 0] + $kept;
        }
        if ($request->has('over')) {
            $kept['over'] = explode(',', $request->string('over')->value());
        }
        if ($request->has('views')) {
            $views = json_decode($request->string('views')->value(), true);
            $kept['views'] = ViewFilter::of($views)?->toArray();
        }
        if ($request->has('follow')) {
            $kept['follow'] = $request->boolean('follow');
        }

        return $kept;
    }
}
