<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Targets;
use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\RowEdit;
use VineShelf\Locks\Lock;
use VineShelf\Scene\Bits;

/** Layers and objects get another lock of their own. */
final class SetLocks extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    public function __construct(Bench $bench, Targets $targets, Lock $lock)
    {
        $steps = [];
        $name = '';
        foreach ($targets->layers as $number) {
            $layer = $bench->layers()->get($number);
            if ($layer->lock !== $lock) {
                $steps[] = new RowEdit('layers', $number, ['lock' => $layer->lock->value], ['lock' => $lock->value]);
                $name = $layer->name;
            }
        }
        $layers = count($steps);
        [$before, $after] = $this->objects($bench, $targets->rows, $lock);
        if ($after !== []) {
            $steps[] = new ObjectsEdit('lock', $before, [$lock->value => $after]);
        }
        $this->edits = new Edits($steps);
        $objects = number_format(count($after)).' '.(count($after) === 1 ? 'object' : 'objects');
        $this->title =
            ['Open', 'Guard', 'Lock'][$lock->value].
            ' '.
            implode(
                ' and ',
                array_filter([$layers === 0 ? '' : ($layers === 1 ? "layer $name" : "$layers layers"), $after === [] ? '' : $objects]),
            );
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
     * @return array{array<int, list<int>>, list<int>} numbers of objects by the lock that they have, and all of them: only those that
     * change
     */
    private function objects(Bench $bench, Bits $rows, Lock $lock): array
    {
        $scene = $bench->scene();
        $before = [];
        foreach (array_keys($scene->locks()->histogram($rows)) as $own) {
            if ($own !== $lock->value) {
                $before[$own] = $scene->numbersIn($rows->and($scene->locks()->rowsOf([$own => true]))->ranges());
            }
        }

        return [$before, array_merge(...array_values($before))];
    }
}
