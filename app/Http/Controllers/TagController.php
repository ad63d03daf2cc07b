<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\CreateTag;
use App\Changes\History;
use App\Changes\MergeTags;
use App\Changes\TagAlong;
use App\Changes\TagObjects;
use App\Ledger\Folding;
use App\Ledger\Ledger;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;
use VineShelf\Tags\Tag;

/** Tags come, and objects get them or lose them. */
final class TagController
{
    private const MODES = ['add' => true, 'remove' => false, 'toggle' => null];

    public function __construct(private readonly History $history) {}

    public function store(Request $request, Bench $bench): Response
    {
        $name = $request->string('name')->trim()->value();
        // A path through folders, whose missing ones are made.
        if (str_contains($name, ' / ') && $request->boolean('from_pick')) {
            return $this->tagAlong($request, $bench, $name);
        }
        $make = static fn (Bench $held): CreateTag => new CreateTag(
            $held,
            $name,
            $request->integer('folder'),
            $request->boolean('from_pick') ? self::meant($request, $held) : null,
            $request->boolean('with_held', true),
        );
        $command = $this->history->carryOut($bench, $make);
        $answer = Answer::to($bench, $request)->after($command, '');
        if (! $request->boolean('from_pick')) {
            Folding::reveal($bench, "T$command->number");
        }

        return ($request->boolean('from_pick') ? $answer : $answer->with(['focus' => "T$command->number"]))->send();
    }

    private function tagAlong(Request $request, Bench $bench, string $path): Response
    {
        $withHeld = $request->boolean('with_held', true);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): TagAlong => new TagAlong($held, $path, self::meant($request, $held), true, $withHeld),
        );

        return Answer::to($bench, $request)->after($command, 'All of it has the tag already.')->send();
    }

    /** Asks which of two tags or more stays, and says what becomes of what the others had. */
    public function askMerge(Request $request, Bench $bench): View
    {
        $tags = array_values(array_filter(Keys::in($request)->numbered('T'), $bench->tags()->has(...)));
        if (count($tags) < 2) {
            throw new Refused('Choose two tags or more to make one of: Ctrl and a click adds one.', 'keys');
        }
        $tags = array_map($bench->tags()->get(...), $tags);
        $differences = [];
        foreach ($tags as $kept) {
            $others = array_values(array_filter($tags, static fn (Tag $tag): bool => $tag !== $kept));
            $differences[$kept->number] = MergeTags::differences($bench, $others, $kept);
        }

        return view('workbench.merge-tags', ['bench' => $bench, 'tags' => $tags, 'differences' => $differences]);
    }

    /** The tags of the rows become one: the first of them, or the one that is named. */
    public function merge(Request $request, Bench $bench): Response
    {
        $tags = Keys::in($request)->numbered('T');
        $into = $request->integer('into', $tags[0] ?? 0);
        $command = $this->history->carryOut($bench, static fn (Bench $held): MergeTags => new MergeTags($held, $tags, $into));

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['focus' => "T$into"])
            ->send();
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
