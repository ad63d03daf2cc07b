<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use VineShelf\Layers\Layer;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Scene;

/** A new layer, empty or holding the pick. */
final class CreateLayer extends Command
{
    private const COLOURS = ['#3f7a63', '#c98f4a', '#5d8f84', '#d26b4f', '#6d7d8b', '#a8866b', '#7f9c6a', '#4f7d9a', '#8a5a3c', '#b4573f'];

    public readonly int $number;

    private readonly string $layerName;

    private readonly ?FileObjects $filing;

    private readonly Edits $edits;

    /** @param list<int> $objects numbers of objects to file under it */
    public function __construct(Project $project, string $name, int $parent, array $objects, Scene $scene, InEffect $inEffect)
    {
        $tree = $project->layerTree();
        $this->layerName = LayerNames::check($name);
        $parent = $parent === Layer::UNSORTED || ! $tree->has($parent) ? 0 : $parent;
        LayerNames::checkFree($this->layerName, $tree, $parent);
        $this->number = $project->next_layer++;
        $position = 1;
        foreach ($tree->inside($parent) as $sibling) {
            $position = max($position, $tree->get($sibling)->position + 1);
        }
        $steps = [new RowEdit('layers', $this->number, null, [
            'parent_no' => $parent, 'position' => $position, 'name' => $this->layerName, 'colour' => self::COLOURS[$this->number % count(self::COLOURS)], 'lock' => 0,
        ])];
        $this->filing = $objects === [] ? null : new FileObjects($objects, new Layer($this->number, $parent, $position, $this->layerName, '#000000'), $scene, $inEffect);
        $this->leftAlone = $this->filing->leftAlone ?? '';
        $this->edits = new Edits([...$steps, ...($this->filing?->edits()->steps ?? [])]);
    }

    public function name(): string
    {
        return "Create layer $this->layerName".($this->filing === null ? '' : ' from '.number_format($this->filing->filed).' objects');
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
