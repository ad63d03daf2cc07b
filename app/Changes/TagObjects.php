<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;
use VineShelf\Tags\Tag;

/** Objects, and what they hold unless told otherwise, get a tag or lose it. */
final class TagObjects extends Command
{
    /** Objects that get the tag or lose it. */
    public readonly int $changed;

    private readonly Edits $edits;

    private readonly string $title;

    /**
     * @param Bits      $rows scene rows of the objects
     * @param bool|null $on   whether they get it; null: they lose it when all have it
     */
    public function __construct(Bench $bench, Bits $rows, Tag $tag, ?bool $on = true, bool $withHeld = true)
    {
        $scene = $bench->scene();
        $rows = $withHeld ? Relatives::within($scene, $rows) : $rows;
        $open = $rows->without($bench->inEffect()->locked());
        $tagged = $bench->tags()->has($tag->number) ? $scene->tagged($tag->number) : Bits::none($scene->count());
        $on ??= ! $open->without($tagged)->isEmpty() || $open->isEmpty();
        $changing = $on ? $open->without($tagged) : $open->and($tagged);
        $this->changed = $changing->count();
        $this->leftAlone = self::lockedInWords($rows->count() - $open->count());
        $numbers = $scene->numberBits($changing);
        $nothing = Bits::none(0);
        $edit = new MembersEdit('tags', $tag->number, $on ? $numbers : $nothing, $on ? $nothing : $numbers);
        $this->edits = new Edits($this->changed === 0 ? [] : [$edit]);
        $objects = number_format($this->changed).' '.($this->changed === 1 ? 'object' : 'objects');
        $this->title = $on ? "Tag $objects $tag->name" : "Take $tag->name off $objects";
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
