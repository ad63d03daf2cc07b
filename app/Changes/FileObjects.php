<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Locked;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Scene;

/** Objects, and what they hold, move under a layer. */
final class FileObjects extends Command
{
    /** Objects that moved. */
    public readonly int $filed;

    private readonly Edits $edits;

    private readonly string $title;

    /** @param list<int> $objects numbers */
    public function __construct(array $objects, Layer $layer, Scene $scene, InEffect $inEffect, bool $withHeld = true)
    {
        $rows = $scene->rowsOf($objects);
        $ranges = $withHeld ? $scene->subtrees($rows) : array_map(static fn (int $row): array => [$row, $row], $rows);
        [$open, $locked] = Locked::split($ranges, $inEffect->locks());
        $before = [];
        $layers = $scene->layers();
        foreach ($open as [$first, $last]) {
            for ($index = $layers->indexOf($first); $first <= $last; $index++) {
                $end = min($last, $layers->end($index));
                if ($layers->values[$index] !== $layer->number) {
                    $before[$layers->values[$index]][] = [$first, $end];
                }
                $first = $end + 1;
            }
        }
        $numbers = array_map($scene->numbersIn(...), $before);
        $all = array_merge(...array_values($numbers));
        $this->filed = count($all);
        $this->leftAlone = $locked === 0 ? '' : number_format($locked).' locked '.($locked === 1 ? 'object was' : 'objects were').' left alone.';
        $this->edits = new Edits($all === [] ? [] : [new ObjectsEdit('layer_no', $numbers, [$layer->number => $all])]);
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
