<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\ChangeMembers;
use App\Changes\Command;
use App\Changes\CreateSet;
use App\Changes\History;
use App\Changes\JoinSets;
use App\Ledger\Ledger;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Scene\Bits;

/** Selection sets are kept, and objects come to fixed ones or leave them. */
final class SetController
{
    public function __construct(private readonly History $history) {}

    /** Asks what the new set is to be: what is picked, what was found, or the rule itself. */
    public function create(Request $request, Bench $bench): View
    {
        $ledger = Ledger::asked($bench, $request);

        return view('workbench.keep-set', [
            'bench' => $bench,
            'rule' => $ledger->found()->rows === null ? '' : $ledger->words,
            'hits' => $ledger->found()->rows?->count() ?? 0,
            'folder' => $request->integer('folder'),
            'from' => $request->string('of')->value(),
        ]);
    }

    public function store(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['of' => ['required', 'in:pick,hits,rule,nothing']]);
        $name = $request->string('name')->value();
        $folder = $request->integer('folder');
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): CreateSet => match ($given['of']) {
                'rule' => CreateSet::live(
                    $held,
                    $name,
                    $folder,
                    $request->string('rule')->value() ?: Ledger::asked($held, $request)->words,
                ),
                'hits' => CreateSet::fixed($held, $name, $folder, Ledger::asked($held, $request)->hits()),
                'nothing' => CreateSet::fixed($held, $name, $folder, Bits::none($held->scene()->count())),
                default => CreateSet::fixed($held, $name, $folder, Targets::pick($held)->rows),
            },
        );

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with($request->string('lens')->value() === 'sets' ? ['focus' => "E$command->number"] : [])
            ->send();
    }

    /** Objects of rows or of the pick come to a fixed set or leave it; members that are gone from the project are let go of. */
    public function members(Request $request, Bench $bench, int $set): Response
    {
        $given = $request->validate(['way' => ['required', 'in:add,remove,replace,let-go']]);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeMembers => $given['way'] === 'let-go'
                ? ChangeMembers::letGo($held, $set)
                : ChangeMembers::of($held, $set, self::meant($request, $held), $given['way']),
        );

        return Answer::to($bench, $request)->after($command, 'The set is that already.')->send();
    }

    /** Asks what becomes of sets that are dropped on another one. */
    public function askJoin(Request $request, Bench $bench, int $set): View
    {
        $keys = $request->string('keys')->value();

        $joining = new JoinSets($bench, self::keys($keys), $set);

        return view('workbench.join-sets', ['bench' => $bench, 'keys' => $keys, 'joining' => $joining]);
    }

    public function join(Request $request, Bench $bench, int $set): Response
    {
        [$keys, $way, $name] = array_map(static fn (string $of): string => $request->string($of)->value(), ['keys', 'way', 'name']);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): Command => (new JoinSets($held, self::keys($keys), $set))->command($way, $name),
        );

        return Answer::to($bench, $request)
            ->after($command, 'It is so already.')
            ->with($command instanceof CreateSet ? ['focus' => "E$command->number"] : [])
            ->send();
    }

    /** @return list<string> */
    private static function keys(string $keys): array
    {
        return array_values(array_filter(explode(',', $keys)));
    }

    /** @throws Refused */
    private static function meant(Request $request, Bench $bench): Bits
    {
        return Targets::in($request, $bench)->objectsOnly($bench, 'Objects are in sets; pick those of the layer first.');
    }
}
