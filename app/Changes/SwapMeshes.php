<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MeshEdit;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;

/** Objects that draw some meshes draw others instead; what is locked keeps its own. */
final class SwapMeshes extends Command
{
    /** How many objects get another mesh. */
    public readonly int $objects;

    private readonly Edits $edits;

    /** @param array<int, int> $swaps the mesh that they get by the mesh that they have */
    public function __construct(Bench $bench, array $swaps, private readonly string $name)
    {
        $locked = $bench->scene()->numberBits($bench->inEffect()->locked());
        $users = [];
        $rows = DB::table('objects')
            ->where('project_id', $bench->project->id)
            ->where('gone', false)
            ->whereIn('mesh_no', array_keys($swaps))
            ->orderBy('no');
        foreach ($rows->get(['no', 'mesh_no']) as $object) {
            $users[(int) $object->mesh_no][] = (int) $object->no;
        }
        $steps = [];
        $objects = $left = 0;
        foreach ($swaps as $from => $to) {
            $numbers = $users[$from] ?? [];
            $all = Bits::ofRows($numbers === [] ? 0 : $numbers[count($numbers) - 1], $numbers);
            $free = $all->less($locked);
            $left += $all->count() - $free->count();
            $objects += $free->count();
            if (! $free->isEmpty() && $from !== $to) {
                $steps[] = new MeshEdit($from, $to, $free);
            }
        }
        $this->objects = $objects;
        $this->leftAlone = self::lockedInWords($left);
        $this->edits = new Edits($steps);
    }

    public function name(): string
    {
        return $this->name;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
