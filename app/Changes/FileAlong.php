<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use VineShelf\Scene\Bits;

/** Objects move under the layer at the end of a path, which is made where it is missing. */
final class FileAlong extends Command
{
    private readonly FileObjects $filing;

    private readonly Edits $edits;

    /** @param string $path for example "Stands / Seats" */
    public function __construct(Bench $bench, string $path, Bits $rows, bool $withHeld)
    {
        $along = new AlongPath($bench);
        $layer = $along->layer(AlongPath::names($path, 'layer'));
        $this->filing = new FileObjects($bench, $rows, $layer, $withHeld);
        $this->leftAlone = $this->filing->leftAlone;
        $this->edits = new Edits([...$along->steps, ...$this->filing->edits()->steps]);
    }

    public function name(): string
    {
        return $this->filing->name();
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
