<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use VineShelf\Folders\Holds;
use VineShelf\Scene\Bits;
use VineShelf\Tags\Tag;

/** Objects get the tag at the end of a path through folders, which is made where it is missing, or lose it. */
final class TagAlong extends Command
{
    private readonly TagObjects $tagging;

    private readonly Edits $edits;

    /** @param string $path for example "Phases / First" */
    public function __construct(Bench $bench, string $path, Bits $rows, bool $on, bool $withHeld)
    {
        $along = new AlongPath($bench);
        $names = AlongPath::names($path, 'tag');
        $name = (string) array_pop($names);
        $folder = $along->folder(Holds::Tags, $names);
        $number = $along->member(Holds::Tags, $folder, $name);
        if ($number === null && ! $on) {
            throw new Refused("There is no tag $path.", 'tag');
        }
        $number ??= $along->makeMember(Holds::Tags, $folder, $name, []);
        $this->tagging = new TagObjects($bench, $rows, new Tag($number, $folder, 0, $name, ''), $on, $withHeld);
        $this->leftAlone = $this->tagging->leftAlone;
        $this->edits = new Edits([...$along->steps, ...$this->tagging->edits()->steps]);
    }

    public function name(): string
    {
        return $this->tagging->name();
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
