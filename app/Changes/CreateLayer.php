<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Colours\Palette;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;

/** A new layer, empty or holding the pick. */
final class CreateLayer extends Command
{
    public readonly int $number;

    private readonly string $layerName;

    private readonly ?FileObjects $filing;

    private readonly Edits $edits;

    /** @param Bits|null $rows scene rows of objects to file under it */
    public function __construct(Bench $bench, string $name, int $parent, ?Bits $rows)
    {
        $tree = $bench->layers();
        $this->layerName = RowNames::check($name, 'layer');
        $parent = $parent === Layer::UNSORTED || ! $tree->has($parent) ? 0 : $parent;
        RowNames::checkFree($this->layerName, 'layer', Organizer::inside($bench, 'layers', $parent));
        $step = self::step($bench, $parent, $this->layerName);
        $this->number = $step->number;
        $this->filing = $rows === null ? null : new FileObjects($bench, $rows, self::layer($step));
        $this->leftAlone = $this->filing->leftAlone ?? '';
        $this->edits = new Edits([$step, ...$this->filing?->edits()->steps ?? []]);
    }

    /**
     * The step that makes a layer, last in what it lies in.
     *
     * @param int          $after  places after the last one
     * @param list<string> $taken  colours besides those of the layers there
     */
    public static function step(Bench $bench, int $parent, string $name, int $after = 1, array $taken = []): RowEdit
    {
        $position = 0;
        foreach ($bench->layers()->inside($parent) as $sibling) {
            $position = max($position, $bench->layers()->get($sibling)->position);
        }
        $colours = array_map(static fn (array $entry): string => $entry[0]->colour, $bench->layers()->walk());

        return new RowEdit('layers', $bench->project->next_layer++, null, [
            'parent_no' => $parent,
            'position' => $position + $after,
            'name' => $name,
            'colour' => Palette::next([...$colours, ...$taken]),
            'lock' => 0,
        ]);
    }

    /** The layer that a step makes. */
    public static function layer(RowEdit $step): Layer
    {
        /** @var array{parent_no: int, position: int, name: string, colour: string} $row */
        $row = $step->after;

        return new Layer($step->number, $row['parent_no'], $row['position'], $row['name'], $row['colour']);
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
