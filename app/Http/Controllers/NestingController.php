<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Arrangement;
use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\LedgerWindows;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\Command;
use App\Changes\CopyObjects;
use App\Changes\DeleteObjects;
use App\Changes\GroupObjects;
use App\Changes\History;
use App\Changes\Nesting;
use App\Changes\NestObjects;
use App\Changes\OrderObjects;
use App\Changes\UngroupObjects;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\WhatItMeans;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Geometry\Copies;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Pick;

/** What objects stand in, and in which order; copies of them; objects that go. */
final class NestingController
{
    /** Groups that one can choose from. */
    private const OFFERED = 600;

    public function __construct(private readonly History $history) {}

    /** What it would mean for the desk and for locks, in words; empty for nothing. */
    public function means(Request $request, Bench $bench): JsonResponse
    {
        $rows = self::meant($request, $bench);
        $what = $request->string('what')->value();
        $means = match ($what) {
            'group' => WhatItMeans::grouping($bench, $rows),
            'ungroup' => WhatItMeans::ungrouping($bench, $rows),
            'beside' => WhatItMeans::moving($bench, $rows, $bench->scene()->parent($bench->scene()->row($request->integer('into')) ?: 0)),
            default => WhatItMeans::moving($bench, $rows, $bench->scene()->row($request->integer('into'))),
        };

        return new JsonResponse(['says' => $means->inWords()]);
    }

    public function group(Request $request, Bench $bench): Response
    {
        $name = $request->string('name')->value();
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): GroupObjects => new GroupObjects($held, self::meant($request, $held), $name),
        );
        $this->pick($bench, [$command->group]);
        $this->unfold($bench, $command->group);

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['nesting' => "O$command->group"])
            ->send();
    }

    public function ungroup(Request $request, Bench $bench): Response
    {
        return $this->answer(
            $request,
            $bench,
            static fn (Bench $held): UngroupObjects => new UngroupObjects($held, self::meant($request, $held)),
        );
    }

    /** Asks which group objects are to come to. */
    public function askNest(Request $request, Bench $bench): View
    {
        $rows = self::meant($request, $bench);
        $roots = Nesting::outermost($bench->scene(), $rows);

        return view('workbench.nest', [
            'bench' => $bench,
            'keys' => $request->string('keys')->value(),
            'count' => $roots->count(),
            'groups' => WhatItMeans::near($bench, $roots, self::OFFERED),
        ]);
    }

    public function nest(Request $request, Bench $bench): Response
    {
        $given = $request->validate([
            'where' => ['nullable', 'in:into,before,after'],
            'into' => ['nullable', 'integer', 'min:0', 'max:999999999'],
            'mark' => ['nullable', 'integer', 'min:1', 'max:999999999'],
        ]);
        $where = $given['where'] ?? 'into';

        return $this->answer(
            $request,
            $bench,
            static fn (Bench $held): NestObjects => $where === 'into'
                ? NestObjects::into($held, self::meant($request, $held), (int) ($given['into'] ?? 0))
                : NestObjects::beside($held, self::meant($request, $held), (int) ($given['mark'] ?? 0), $where === 'before'),
            'It is there already.',
        );
    }

    public function shift(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['by' => ['required', 'in:-1,1']]);

        return $this->answer(
            $request,
            $bench,
            static fn (Bench $held): NestObjects => NestObjects::shift($held, self::meant($request, $held), (int) $given['by']),
            'It is at the end already.',
        );
    }

    /** Asks whether what stands in groups is to be put in order by name, and says whose order that would end. */
    public function askOrder(Request $request, Bench $bench): View
    {
        $command = new OrderObjects($bench, self::groups($request, $bench));

        return view('workbench.order-objects', ['bench' => $bench, 'keys' => $request->string('keys')->value(), 'command' => $command]);
    }

    public function order(Request $request, Bench $bench): Response
    {
        return $this->answer(
            $request,
            $bench,
            static fn (Bench $held): OrderObjects => new OrderObjects($held, self::groups($request, $held)),
            'It stands by name already.',
        );
    }

    public function askCopy(Request $request, Bench $bench): View
    {
        $rows = self::meant($request, $bench);
        $roots = Nesting::outermost($bench->scene(), $rows);

        return view('workbench.copy', [
            'bench' => $bench,
            'keys' => $request->string('keys')->value(),
            'count' => $roots->count(),
            'box' => $bench->facts()->boxAround($roots),
        ]);
    }

    public function copy(Request $request, Bench $bench): Response
    {
        $far = 'between:-1000000,1000000';
        $given = $request->validate([
            'way' => ['nullable', 'in:here,row,circle'],
            'count' => ['nullable', 'integer', 'between:1,10000'],
            'x' => ['nullable', 'numeric', $far],
            'y' => ['nullable', 'numeric', $far],
            'z' => ['nullable', 'numeric', $far],
            'turn' => ['nullable', 'numeric', 'between:-36000,36000'],
            'around_x' => ['nullable', 'numeric', 'between:-100000000,100000000'],
            'around_y' => ['nullable', 'numeric', 'between:-100000000,100000000'],
        ]);
        $number = static fn (string $field): float => is_finite((float) ($given[$field] ?? 0)) ? (float) ($given[$field] ?? 0) : 0.0;
        $count = (int) ($given['count'] ?? 1);
        $around = [$number('around_x'), $number('around_y')];
        $move = [$number('x'), $number('y'), $number('z')];
        $steps = match ($given['way'] ?? 'here') {
            'row' => new Copies($count, $move, $number('turn')),
            'circle' => ($given['turn'] ?? '') === ''
                ? Copies::circle($count, $around, $move[2])
                : new Copies($count, [0.0, 0.0, $move[2]], $number('turn'), $around),
            default => new Copies(1, [0.0, 0.0, 0.0]),
        };
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): CopyObjects => new CopyObjects($held, self::meant($request, $held), $steps),
        );
        $this->pick($bench, $command->copies);

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    public function delete(Request $request, Bench $bench): Response
    {
        return $this->answer(
            $request,
            $bench,
            static fn (Bench $held): DeleteObjects => new DeleteObjects($held, self::meant($request, $held)),
        );
    }

    /** @param \Closure(Bench): Command $make */
    private function answer(Request $request, Bench $bench, \Closure $make, string $nothing = ''): Response
    {
        return Answer::to($bench, $request)->after($this->history->carryOut($bench, $make), $nothing)->send();
    }

    /** What a group stands in is unfolded, so that it can be seen and named. */
    private function unfold(Bench $bench, int $group): void
    {
        $scene = $bench->scene();
        $above = array_map($scene->number(...), $scene->ancestors($scene->row($group)));
        DeskChange::on($bench, static function (Desk $desk) use ($bench, $above): void {
            $kept = $bench->arranged($desk)->toArray();
            $kept['objects'] = Arrangement::packed(Arrangement::unfolded($kept)->with($above));
            LedgerWindows::put($desk, $bench->window, $kept);
        });
    }

    /**
     * What was just made is picked.
     *
     * @param list<int> $numbers
     */
    private function pick(Bench $bench, array $numbers): void
    {
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick(Pick::of($numbers)));
    }

    /** @throws Refused */
    private static function meant(Request $request, Bench $bench): Bits
    {
        return Targets::in($request, $bench)->objectsOnly($bench, 'Objects stand in groups; pick those of the layer first.');
    }

    /** Groups that are meant; none for what stands at the top. @throws Refused */
    private static function groups(Request $request, Bench $bench): Bits
    {
        if ($request->boolean('top')) {
            return Bits::none($bench->scene()->count());
        }
        $rows = self::meant($request, $bench);
        $groups = $rows->and(
            $bench
                ->facts()
                ->ranked('kind')
                ->in([Kind::Group->value])
                ->or($bench->scene()->groupBits()),
        );

        return $groups->isEmpty() ? throw new Refused('None of it holds anything.', 'keys') : $groups;
    }
}
