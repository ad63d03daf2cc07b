<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use VineShelf\Layers\Layer;

/** A layer's objects go to Unsorted; the layers nested in it keep theirs. */
final class EmptyLayer extends Command
{
    private readonly FileObjects $filing;

    private readonly string $title;

    public function __construct(Bench $bench, int $number)
    {
        $layer = $bench->layers()->get($number);
        if ($layer->isUnsorted()) {
            throw new Refused('Unsorted is where objects go that have no other layer; it cannot be emptied.');
        }
        $unsorted = $bench->layers()->get(Layer::UNSORTED);
        $this->filing = new FileObjects($bench, $bench->contents()->rows($number), $unsorted, withHeld: false);
        $this->leftAlone = $this->filing->leftAlone;
        $objects = number_format($this->filing->filed).' '.($this->filing->filed === 1 ? 'object' : 'objects');
        $this->title = "Empty layer $layer->name: $objects to Unsorted";
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->filing->edits();
    }
}
