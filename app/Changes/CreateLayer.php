<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;

/** A new layer, empty or holding the pick. */
final class CreateLayer extends Command
{
    private const COLOURS = ['#3f7a63', '#c98f4a', '#5d8f84', '#d26b4f', '#6d7d8b', '#a8866b', '#7f9c6a', '#4f7d9a', '#8a5a3c', '#b4573f'];

    public readonly int $number;

    private readonly string $layerName;

    private readonly ?FileObjects $filing;

    private readonly Edits $edits;

    /** @param Bits|null $rows scene rows of objects to file under it */
    public function __construct(Bench $bench, string $name, int $parent, ?Bits $rows)
    {
        $project = $bench->project;
        $tree = $bench->layers();
        $this->layerName = LayerNames::check($name);
        $parent = $parent === Layer::UNSORTED || ! $tree->has($parent) ? 0 : $parent;
        LayerNames::checkFree($this->layerName, $tree, $parent);
        $this->number = $project->next_layer++;
        $position = 1;
        foreach ($tree->inside($parent) as $sibling) {
            $position = max($position, $tree->get($sibling)->position + 1);
        }
        $steps = [
            new RowEdit('layers', $this->number, null, [
                'parent_no' => $parent,
                'position' => $position,
                'name' => $this->layerName,
                'colour' => self::COLOURS[$this->number % count(self::COLOURS)],
                'lock' => 0,
            ]),
        ];
        $this->filing =
            $rows === null
                ? null
                : new FileObjects($bench, $rows, new Layer($this->number, $parent, $position, $this->layerName, '#000000'));
        $this->leftAlone = $this->filing->leftAlone ?? '';
        $this->edits = new Edits([...$steps, ...$this->filing?->edits()->steps ?? []]);
    }

    public function name(): string
    {
        return "Create layer $this->layerName".
            ($this->filing === null
                ? ''
                : ' from '.number_format($this->filing->filed).' '.($this->filing->filed === 1 ? 'object' : 'objects'));
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
