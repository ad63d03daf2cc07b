<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use VineShelf\Scene\Bits;

/** Objects go under layers of which each was worked out for them, without what they hold. */
final class FileByMap extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    /** @param array<int, list<int>> $rows scene rows by layer */
    public function __construct(Bench $bench, array $rows)
    {
        $scene = $bench->scene();
        $locked = $bench->inEffect()->locked();
        $before = $after = [];
        $left = $filed = 0;
        foreach ($rows as $layer => $some) {
            sort($some);
            $all = Bits::ofRows($scene->count(), $some);
            $free = $all->without($locked);
            $left += $all->count() - $free->count();
            foreach ($scene->layers()->histogram($free) as $home => $many) {
                if ($home !== $layer) {
                    $numbers = $scene->numbersIn($free->and($scene->layers()->rowsOf([$home => true]))->ranges());
                    $before[$home] = [...$before[$home] ?? [], ...$numbers];
                    $after[$layer] = [...$after[$layer] ?? [], ...$numbers];
                    $filed += $many;
                }
            }
        }
        $this->leftAlone = self::lockedInWords($left);
        $this->edits = new Edits($after === [] ? [] : [new ObjectsEdit('layer_no', $before, $after)]);
        $this->title = 'File '.number_format($filed).' '.($filed === 1 ? 'object' : 'objects').' to tidy up';
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
