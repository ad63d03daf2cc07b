<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\LedgerWindows;
use App\Bench\Refused;
use App\Ledger\Ledger;
use App\Models\Desk;
use App\Models\LedgerLayout;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;

/** Ledger layouts: arrangements of the ledger that a person keeps under names. */
final class LayoutController
{
    private const MOST = 50;

    public function index(Request $request, Bench $bench): JsonResponse
    {
        return new JsonResponse(
            $this->own($bench)->orderBy('no')->get()->map(
                static fn (LedgerLayout $layout): array => [
                    'no' => $layout->no,
                    'name' => $layout->name,
                    'isDefault' => $layout->is_default,
                    'isOpen' => $layout->no === $bench->arrangement()->layout,
                ],
            ),
        );
    }

    /** Keeps the ledger as it is now; under a name that there is already, the layout is replaced. */
    public function store(Request $request, Bench $bench): Response
    {
        $name = $request->string('name')->squish()->value();
        if ($name === '' || mb_strlen($name) > 80) {
            throw new Refused(
                $name === ''
                    ? 'A layout needs a name.'
                    : 'A layout\'s name has at most 80 characters; this one has '.mb_strlen($name).'.',
                'name',
            );
        }
        $kept = $bench->arrangement()->toArray();
        $arrangement = [
            'lens' => $kept['lens'] ?? 'layers',
            'columns' => $kept['columns'] ?? [],
            'sort' => $kept['sort'] ?? null,
            'rule' => $request->string('words')->value(),
        ];
        $number = DB::transaction(function () use ($bench, $name, $arrangement, $request): int {
            DB::table('users')->where('id', $bench->person->id)->lockForUpdate()->first();
            $found = $this->own($bench)->where('name', $name)->value('no');
            $number = is_int($found) ? $found : (int) $this->own($bench)->max('no') + 1;
            if (! is_int($found) && $this->own($bench)->count() >= self::MOST) {
                throw new Refused('There are '.self::MOST.' layouts already; delete one first.', 'name');
            }
            if ($request->boolean('default')) {
                $this->own($bench)->update(['is_default' => false]);
            }
            LedgerLayout::query()->upsert(
                [
                    'user_id' => $bench->person->id,
                    'no' => $number,
                    'name' => $name,
                    'arrangement' => json_encode($arrangement),
                    'is_default' => $request->boolean('default'),
                ],
                ['user_id', 'no'],
                ['name', 'arrangement', 'is_default'],
            );

            return $number;
        });
        DeskChange::on($bench, static function (Desk $desk) use ($bench, $number): void {
            LedgerWindows::put($desk, $bench->window, ['layout' => $number] + $bench->arranged($desk)->toArray());
        });

        return response()->view('workbench.said', ['message' => "Layout $name is kept."]);
    }

    /** Opens the ledger as a layout has it; what is unfolded stays. */
    public function apply(Request $request, Bench $bench, int $layout): Response
    {
        $found = $this->own($bench)->where('no', $layout)->firstOrFail();
        $kept = array_intersect_key($found->arrangement, ['lens' => 1, 'columns' => 1, 'sort' => 1]);
        DeskChange::on($bench, static function (Desk $desk) use ($bench, $kept, $layout): void {
            LedgerWindows::put($desk, $bench->window, $kept + ['layout' => $layout] + $bench->arranged($desk)->toArray());
        });
        $rule = is_string($found->arrangement['rule'] ?? null) ? $found->arrangement['rule'] : '';
        $request->merge(['words' => $rule, 'lens' => $bench->arrangement()->lens, 'from' => 0]);

        return response()->view('workbench.ledger-parts', ['bench' => $bench, 'ledger' => Ledger::asked($bench, $request)]);
    }

    public function update(Request $request, Bench $bench, int $layout): Response
    {
        $found = $this->own($bench)->where('no', $layout)->firstOrFail();
        $wanted = $request->boolean('default');
        DB::transaction(function () use ($bench, $layout, $wanted): void {
            $this->own($bench)->update(['is_default' => false]);
            $this->own($bench)
                ->where('no', $layout)
                ->update(['is_default' => $wanted]);
        });

        return response()->view('workbench.said', [
            'message' => $wanted ? "New projects open with layout $found->name." : 'New projects open as they come.',
        ]);
    }

    public function destroy(Request $request, Bench $bench, int $layout): Response
    {
        $found = $this->own($bench)->where('no', $layout)->firstOrFail();
        $this->own($bench)->where('no', $layout)->delete();

        return response()->view('workbench.said', ['message' => "Layout $found->name is deleted; the ledger stays as it is."]);
    }

    /** @return Builder<LedgerLayout> */
    private function own(Bench $bench): Builder
    {
        return LedgerLayout::query()->where('user_id', $bench->person->id);
    }
}
