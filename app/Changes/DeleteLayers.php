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
 * Several layers go at once. Their objects go to one layer, each to the nearest layer above that stays, or are deleted as well; layers
 * nested in them that stay come to stand there too.
 */
final class DeleteLayers extends Command
{
    /** Objects of each go to the nearest layer above that stays, those at the top to Unsorted. */
    public const ABOVE = -1;

    /** @var array<int, int> number of the layer that new objects land in instead, by number of the layer that goes */
    private readonly array $landings;

    private readonly Edits $edits;

    private readonly string $title;

    /**
     * @param list<int> $numbers
     * @param int|null  $target number of the layer that the objects go under, {@see ABOVE}, or null to delete them as well
     * @param bool      $nested whether layers nested in them go too
     */
    public function __construct(Bench $bench, array $numbers, ?int $target, bool $nested)
    {
        $tree = $bench->layers();
        $going = [];
        foreach ($numbers as $number) {
            if ($number === Layer::UNSORTED) {
                throw new Refused('Unsorted is always there; it cannot be deleted. Choose the others without it.', 'keys');
            }
            if ($tree->has($number)) {
                $going += array_fill_keys($nested ? $tree->withNested($number) : [$number], true);
            }
        }
        if ($going === []) {
            throw new Refused('These layers are no longer there.', 'keys');
        }
        foreach (array_keys($going) as $number) {
            if ($tree->locks()[$number] === Lock::Locked->value) {
                throw new Refused("{$tree->get($number)->name} is locked; open it first.", 'keys');
            }
        }
        if ($target !== null && $target !== self::ABOVE && (isset($going[$target]) || ! $tree->has($target))) {
            throw new Refused('Choose another layer for the objects, one that stays.', 'target');
        }
        $above = static function (int $number) use ($tree, $going): int {
            for ($at = $tree->get($number)->parent; $at !== 0 && isset($going[$at]); $at = $tree->get($at)->parent);

            return $at;
        };
        [$steps, $objects] = self::filing($bench, array_keys($going), $target, $above);
        $landings = [];
        foreach (array_keys($going) as $number) {
            $landings[$number] = match (true) {
                $target === null => Layer::UNSORTED,
                $target === self::ABOVE => $above($number) ?: Layer::UNSORTED,
                default => $target,
            };
        }
        $rows = [];
        foreach (array_keys($going) as $number) {
            $rows["L$number"] = Organizer::named($bench, "L$number");
        }
        array_push($steps, ...MovingOut::of($bench, $rows));
        // What lies in a layer goes before the layer does.
        foreach (array_reverse(self::outermostFirst($bench, $going)) as $number) {
            $row = DB::table('layers')->where('project_id', $bench->project->id)->where('no', $number)->first() ?? new \stdClass;
            $steps[] = new RowEdit('layers', $number, RowEdit::stored($row), null);
        }
        $this->landings = $landings;
        $this->edits = new Edits($steps);
        $count = count($going);
        $this->title = ($count === 1 ? 'Delete layer '.$tree->get((int) array_key_first($going))->name : "Delete $count layers").
            ($target === null && $objects > 0 ? ' and '.number_format($objects).($objects === 1 ? ' object' : ' objects') : '');
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
        foreach ($this->landings as $gone => $landing) {
            DeskChange::land($project->id, $gone, $landing);
        }
    }

    /**
     * @param list<int>          $going
     * @param \Closure(int): int $above the nearest layer above one that stays, 0 for none
     *
     * @return array{list<ObjectsEdit>, int} steps, and how many objects they are about
     */
    private static function filing(Bench $bench, array $going, ?int $target, \Closure $above): array
    {
        $scene = $bench->scene();
        $from = $to = [];
        $all = Bits::none($scene->count());
        foreach ($going as $number) {
            $rows = $bench->contents()->rows($number);
            $numbers = $scene->numbersIn($rows->ranges());
            if ($numbers !== []) {
                $all = $all->or($rows);
                $from[$number] = $numbers;
                $there = $target === self::ABOVE ? ($above($number) ?: Layer::UNSORTED) : $target ?? Layer::UNSORTED;
                $to[$there] = [...$to[$there] ?? [], ...$numbers];
            }
        }
        $leaving = $target === null ? Relatives::within($scene, $all) : $all;
        $locked = $leaving->and($bench->inEffect()->locked())->count();
        if ($locked > 0) {
            throw new Refused(
                number_format($locked).($locked === 1 ? ' locked object lies' : ' locked objects lie').' in them; open '.
                    ($locked === 1 ? 'it' : 'them').' first.',
                'keys',
            );
        }
        if ($from === []) {
            return [[], 0];
        }
        $filed = new ObjectsEdit('layer_no', $from, $to);
        $gone = $scene->numbersIn($leaving->ranges());

        return [$target === null ? [new ObjectsEdit('gone', [0 => $gone], [1 => $gone]), $filed] : [$filed], count($gone)];
    }

    /**
     * @param array<int, true> $going
     *
     * @return list<int>
     */
    private static function outermostFirst(Bench $bench, array $going): array
    {
        $order = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            if (isset($going[$layer->number])) {
                $order[] = $layer->number;
            }
        }

        return $order;
    }
}
