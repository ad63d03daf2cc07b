<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** Objects go, with what stands in them. What is locked stays, and so do the groups that it stands in. */
final class DeleteObjects extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    /** Objects that go. */
    public readonly int $going;

    /** @param Bits $rows scene rows @throws Refused when none may go */
    public function __construct(Bench $bench, Bits $rows)
    {
        $scene = $bench->scene();
        $all = Relatives::within($scene, $rows);
        $locked = $all->and($bench->inEffect()->locked());
        $going = $all->without($locked)->without(Relatives::holding($scene, $locked));
        if ($going->isEmpty()) {
            throw new Refused($all->isEmpty() ? 'Pick objects first.' : 'All of it is locked; open it first.', 'keys');
        }
        $numbers = $scene->numbersIn($going->ranges());
        $this->going = count($numbers);
        $this->leftAlone = self::lockedInWords($locked->count());
        $this->edits = new Edits([new ObjectsEdit('gone', [0 => $numbers], [1 => $numbers])]);
        $this->title = 'Delete '.number_format($this->going).' '.($this->going === 1 ? 'object' : 'objects');
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
