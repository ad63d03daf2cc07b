<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Targets;
use App\Changes\Edits\Edits;
use VineShelf\Locks\Lock;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** Everything but some objects, what they hold and the groups that hold them is guarded: of nested groups the outermost. */
final class GuardAllBut extends Command
{
    private readonly SetLocks $locks;

    private readonly int $count;

    public function __construct(Bench $bench, Bits $rows)
    {
        $scene = $bench->scene();
        $kept = Relatives::within($scene, $rows);
        $kept = $kept->or(Relatives::holding($scene, $kept));
        $others = $kept->not();
        $outermost = $others->without(Relatives::inside($scene, $others->and($scene->groupBits())));
        $this->locks = new SetLocks(
            $bench,
            Targets::of([], $outermost->and($scene->locks()->rowsOf([Lock::Open->value => true]))),
            Lock::Guarded,
        );
        $this->count = $rows->count();
    }

    public function name(): string
    {
        return 'Guard all but '.number_format($this->count).' '.($this->count === 1 ? 'object' : 'objects');
    }

    public function edits(): Edits
    {
        return $this->locks->edits();
    }
}
