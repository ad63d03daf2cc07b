<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Organizer;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/**
 * A layer goes, and the layers nested in it move to where it stood. Its objects go under another layer, or are deleted with it.
 */
final class DeleteLayer extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    public readonly int $objects;

    /** @param int|null $target number of the layer that the objects go under, null to delete them as well */
    public function __construct(Bench $bench, private readonly int $number, private readonly ?int $target)
    {
        $tree = $bench->layers();
        $layer = $tree->get($number);
        if ($layer->isUnsorted()) {
            throw new Refused('Unsorted is always there; it cannot be deleted.');
        }
        if ($tree->locks()[$number] === Lock::Locked->value) {
            throw new Refused("$layer->name is locked; open it first.");
        }
        if ($target === $number || ($target !== null && ! $tree->has($target))) {
            throw new Refused('Choose another layer for the objects.', 'target');
        }
        $rows = $bench->contents()->rows($number);
        $going = $target === null ? Relatives::within($bench->scene(), $rows) : $rows;
        $locked = $going->and($bench->inEffect()->locked())->count();
        if ($locked > 0) {
            throw new Refused(
                "$layer->name holds ".
                    number_format($locked).
                    ' locked '.
                    ($locked === 1 ? 'object' : 'objects').
                    '; open '.
                    ($locked === 1 ? 'it' : 'them').
                    ' first.',
            );
        }
        $this->objects = $going->count();
        $this->edits = new Edits([
            ...self::moving($bench, $number, $target, $rows, $going),
            ...MovingOut::of($bench, ["L$number" => Organizer::named($bench, "L$number")]),
            self::leaving($bench, $number),
        ]);
        $this->title =
            "Delete layer $layer->name".
            ($target === null && $this->objects > 0 ? ' and '.number_format($this->objects).' objects' : '');
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    public function atLast(Project $project): void
    {
        DeskChange::land($project->id, $this->number, $this->target ?? Layer::UNSORTED);
    }

    /** @return list<ObjectsEdit> */
    private static function moving(Bench $bench, int $number, ?int $target, Bits $rows, Bits $going): array
    {
        $numbers = $bench->scene()->numbersIn($rows->ranges());
        if ($numbers === []) {
            return [];
        }
        $filed = new ObjectsEdit('layer_no', [$number => $numbers], [$target ?? Layer::UNSORTED => $numbers]);
        if ($target !== null) {
            return [$filed];
        }
        // What the objects hold cannot stay without them; what is filed elsewhere goes too, and is counted.
        $all = $bench->scene()->numbersIn($going->ranges());

        return [new ObjectsEdit('gone', [0 => $all], [1 => $all]), $filed];
    }

    private static function leaving(Bench $bench, int $number): RowEdit
    {
        $row = DB::table('layers')->where('project_id', $bench->project->id)->where('no', $number)->first() ?? new \stdClass;

        return new RowEdit('layers', $number, RowEdit::stored($row), null);
    }
}
