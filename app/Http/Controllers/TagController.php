<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\CreateTag;
use App\Changes\History;
use App\Changes\TagObjects;
use App\Ledger\Ledger;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** Tags come, and objects get them or lose them. */
final class TagController
{
    private const MODES = ['add' => true, 'remove' => false, 'toggle' => null];

    public function __construct(private readonly History $history) {}

    public function store(Request $request, Bench $bench): Response
    {
        $make = static fn (Bench $held): CreateTag => new CreateTag(
            $held,
            $request->string('name')->value(),
            $request->integer('folder'),
            $request->boolean('from_pick') ? self::meant($request, $held) : null,
            $request->boolean('with_held', true),
        );
        $command = $this->history->carryOut($bench, $make);
        $answer = Answer::to($bench, $request)->after($command, '');

        return ($request->boolean('from_pick') ? $answer : $answer->with(['focus' => "T$command->number"]))->send();
    }

    /** Offers the tags, with how many of the rows or of the pick, and of what they hold, have each. */
    public function choose(Request $request, Bench $bench): View
    {
        $rows = self::meant($request, $bench);
        $withHeld = Relatives::within($bench->scene(), $rows);
        $counts = [];
        foreach ($bench->tags()->all() as $tag) {
            $counts[$tag->number] = $bench->scene()->tagged($tag->number)->and($withHeld)->count();
        }

        return view('workbench.tag-pick', [
            'bench' => $bench,
            'keys' => $request->string('keys')->value(),
            'count' => $rows->count(),
            'all' => $withHeld->count(),
            'counts' => $counts,
        ]);
    }

    /** Objects of rows, of the pick or of the hits get a tag, lose it, or the one if some have it not and the other if all have. */
    public function tag(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['tag' => ['required', 'integer'], 'mode' => ['required', 'in:add,remove,toggle']]);
        $withHeld = $request->boolean('with_held', true);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): TagObjects => new TagObjects(
                $held,
                self::meant($request, $held),
                $held->tags()->has((int) $given['tag'])
                    ? $held->tags()->get((int) $given['tag'])
                    : throw new Refused('That tag is no longer there.', 'tag'),
                self::MODES[$given['mode']],
                $withHeld,
            ),
        );

        return Answer::to($bench, $request)
            ->after($command, $given['mode'] === 'remove' ? 'None of it has the tag.' : 'All of it has the tag already.')
            ->send();
    }

    /** @throws Refused */
    private static function meant(Request $request, Bench $bench): Bits
    {
        return $request->boolean('found')
            ? Ledger::asked($bench, $request)->hits()
            : Targets::in($request, $bench)->objectsOnly($bench, 'Objects are tagged; pick those of the layer first.');
    }
}
