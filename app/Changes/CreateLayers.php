<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use Illuminate\Support\Facades\DB;
use VineShelf\Layers\GroupBy;
use VineShelf\Layers\Grouping;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** Several new layers at once from some objects: one per object, kind, class, material, level or layer of the source. */
final class CreateLayers extends Command
{
    private const MOST = 500;

    public readonly int $layers;

    /** Number of the last one that is made, 0 for none. */
    public readonly int $last;

    private readonly int $filed;

    private readonly Edits $edits;

    /** @param Bits $chosen scene rows of the objects; what they hold goes along */
    public function __construct(Bench $bench, GroupBy $by, int $parent, Bits $chosen)
    {
        $scene = $bench->scene();
        $rows = Relatives::within($scene, $chosen);
        $open = $rows->without($bench->inEffect()->locked());
        $parent = $parent === Layer::UNSORTED || ! $bench->layers()->has($parent) ? 0 : $parent;
        $groups = Grouping::of($bench->facts(), $by, $open, $chosen->and($open), self::names($bench));
        if (count($groups) > self::MOST) {
            throw new Refused(
                number_format(count($groups)).
                    ' layers would be made, and at most '.
                    self::MOST.
                    ' are made at once; pick less, or choose another way.',
                'by',
            );
        }
        if ($groups === []) {
            throw new Refused('Nothing that is picked has that, or all of it is locked.', 'by');
        }
        $along = new AlongPath($bench);
        $before = $after = [];
        $filed = 0;
        foreach ($groups as $name => $those) {
            $layer = $along->layerIn($parent, RowNames::check(mb_strimwidth((string) $name, 0, RowNames::LENGTH, '…'), 'layer'));
            $moving = $those->without($scene->layers()->rowsOf([$layer->number => true]));
            foreach (array_keys($scene->layers()->histogram($moving)) as $home) {
                $from = $scene->numbersIn($moving->and($scene->layers()->rowsOf([$home => true]))->ranges());
                $before[$home] = [...$before[$home] ?? [], ...$from];
                $after[$layer->number] = [...$after[$layer->number] ?? [], ...$from];
                $filed += count($from);
            }
        }
        $this->layers = count($along->steps);
        $this->last = $along->steps === [] ? 0 : $along->steps[count($along->steps) - 1]->number;
        $this->filed = $filed;
        $this->leftAlone = self::lockedInWords($rows->count() - $open->count());
        $this->edits = new Edits([...$along->steps, ...$filed === 0 ? [] : [new ObjectsEdit('layer_no', $before, $after)]]);
    }

    /** @return \Closure(list<int>): array<int, string> names as they are written, by scene row */
    private static function names(Bench $bench): \Closure
    {
        return static function (array $rows) use ($bench): array {
            $scene = $bench->scene();
            $names = [];
            foreach (array_chunk(array_map($scene->number(...), $rows), 10_000) as $numbers) {
                $found = DB::table('objects')->where('project_id', $bench->project->id)->whereIn('no', $numbers)->pluck('name', 'no');
                foreach ($found as $number => $name) {
                    $names[$scene->row((int) $number)] = (string) $name;
                }
            }

            return $names;
        };
    }

    public function name(): string
    {
        $layers = $this->layers.' '.($this->layers === 1 ? 'layer' : 'layers');
        $objects = number_format($this->filed).' '.($this->filed === 1 ? 'object' : 'objects');

        return $this->layers === 0 ? "File $objects" : "Create $layers from $objects";
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
