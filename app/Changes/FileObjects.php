<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** Objects, and what they hold unless told otherwise, move under a layer. */
final class FileObjects extends Command
{
    /** Objects that moved. */
    public readonly int $filed;

    private readonly Edits $edits;

    private readonly string $title;

    /** @param Bits $rows scene rows of the objects */
    public function __construct(Bench $bench, Bits $rows, Layer $layer, bool $withHeld = true)
    {
        $scene = $bench->scene();
        $rows = $withHeld ? Relatives::within($scene, $rows) : $rows;
        $open = $rows->without($bench->inEffect()->locked());
        $moving = $open->without($scene->layers()->rowsOf([$layer->number => true]));
        $before = [];
        foreach (array_keys($scene->layers()->histogram($moving)) as $home) {
            $before[$home] = $scene->numbersIn($moving->and($scene->layers()->rowsOf([$home => true]))->ranges());
        }
        $all = $scene->numbersIn($moving->ranges());
        $this->filed = count($all);
        $this->leftAlone = self::lockedInWords($rows->count() - $open->count());
        $this->edits = new Edits($all === [] ? [] : [new ObjectsEdit('layer_no', $before, [$layer->number => $all])]);
        $this->title = 'File '.number_format($this->filed).' '.($this->filed === 1 ? 'object' : 'objects')." under $layer->name";
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
