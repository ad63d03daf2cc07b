<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;
use VineShelf\Locks\Locked;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Scene;

/**
 * A layer goes, and the layers nested in it move to where it stood. Its objects go under another layer, or are deleted with it.
 */
final class DeleteLayer extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    public readonly int $objects;

    /** @param int|null $target number of the layer that the objects go under, null to delete them as well */
    public function __construct(Project $project, int $number, ?int $target, Scene $scene, InEffect $inEffect)
    {
        $tree = $project->layerTree();
        $layer = $tree->get($number);
        if ($layer->isUnsorted()) {
            throw new Refused('Unsorted is always there; it cannot be deleted.');
        }
        if ($tree->locks()[$number] === Lock::Locked->value) {
            throw new Refused("$layer->name is locked; open it first.");
        }
        if ($target === $number || $target !== null && ! $tree->has($target)) {
            throw new Refused('Choose another layer for the objects.', 'target');
        }
        $ranges = $scene->layers()->ranges($number);
        [, $locked] = Locked::split($target === null ? $this->subtrees($scene, $ranges) : $ranges, $inEffect->locks());
        if ($locked > 0) {
            throw new Refused("$layer->name holds ".number_format($locked).' locked '.($locked === 1 ? 'object' : 'objects').'; open '.($locked === 1 ? 'it' : 'them').' first.');
        }
        $steps = [];
        if ($target !== null) {
            $numbers = $scene->numbersIn($ranges);
            if ($numbers !== []) {
                $steps[] = new ObjectsEdit('layer_no', [$number => $numbers], [$target => $numbers]);
            }
        } else {
            // What the objects hold cannot stay without them; what is filed elsewhere goes too, and is counted.
            $numbers = $scene->numbersIn($this->subtrees($scene, $ranges));
            if ($numbers !== []) {
                $steps[] = new ObjectsEdit('gone', [0 => $numbers], [1 => $numbers]);
                $steps[] = new ObjectsEdit('layer_no', [$number => $scene->numbersIn($ranges)], [Layer::UNSORTED => $scene->numbersIn($ranges)]);
            }
        }
        foreach ($tree->inside($number) as $nested) {
            $steps[] = new RowEdit('layers', $nested, ['parent_no' => $number], ['parent_no' => $layer->parent]);
        }
        $row = DB::table('layers')->where('project_id', $project->id)->where('no', $number)->first() ?? new \stdClass;
        $steps[] = new RowEdit('layers', $number, RowEdit::stored($row), null);
        $this->objects = count($numbers);
        $this->edits = new Edits($steps);
        $this->title = "Delete layer $layer->name".($target === null && $this->objects > 0 ? ' and '.number_format($this->objects).' objects' : '');
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /**
     * @param list<array{int, int}> $ranges
     *
     * @return list<array{int, int}>
     */
    private function subtrees(Scene $scene, array $ranges): array
    {
        $rows = [];
        foreach ($ranges as [$first, $last]) {
            array_push($rows, ...range($first, $last));
        }

        return $scene->subtrees($rows);
    }
}
