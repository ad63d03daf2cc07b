<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Layers\Layer;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** What a view knew when it was kept, updated or last reviewed: it follows what becomes of that, and is not surprised by the rest. */
final readonly class Known
{
    /**
     * @param array<int, true> $layers    by number
     * @param array<int, true> $folders   folders of tags, by number
     * @param int              $object    the newest object
     * @param Bits             $strangers numbers of older objects that were away when it was kept, and came back later
     * @param list<Copying>    $copyings  what was copied since, the first first
     */
    public function __construct(
        public array $layers,
        public array $folders,
        public int $object,
        public Bits $strangers,
        public array $copyings = [],
    ) {}

    public function layer(int $number): bool
    {
        return $number === Layer::UNSORTED || isset($this->layers[$number]);
    }

    public function folder(int $number): bool
    {
        return isset($this->folders[$number]);
    }

    /**
     * Numbers of the objects that the view has nothing to say about yet: those that it does not know, that are no copies of what it knows,
     * and that nobody has set in it.
     */
    public function newcomers(Scene $scene, Settings $set): Bits
    {
        $last = intdiv(strlen($scene->column('rows')), 4) - 1;
        $numbers = $this->object < $last ? Bits::ofRanges($last, [[$this->object + 1, $last]]) : Bits::none(max(0, $last));
        $numbers = $numbers->with($this->strangers);
        $lowered = Bits::none(max(0, $last));
        foreach ([$set->objects, $set->objectsAlone] as $objects) {
            foreach ($objects as $rung => $those) {
                $numbers = $numbers->less($those);
                $lowered = $rung < Rung::Full->value ? $lowered->with($those) : $lowered;
            }
        }

        return $this->withoutCopies($numbers, $lowered);
    }

    /**
     * A copy is as old as what it is a copy of, unless that is lower in the view by a setting of its own, which the copy does not have.
     *
     * @param Bits $numbers of newcomers
     * @param Bits $lowered numbers of objects
     */
    private function withoutCopies(Bits $numbers, Bits $lowered): Bits
    {
        $isIn = static fn (Bits $bits, int $number): bool => $number <= $bits->length && $bits->has($number);
        foreach ($this->copyings as $copying) {
            $known = [];
            foreach ($copying->after($this->object) as $copy => $original) {
                if ($isIn($numbers, $copy) && ! $isIn($numbers, $original) && ! $isIn($lowered, $original)) {
                    $known[] = $copy;
                }
            }
            $numbers = $known === [] ? $numbers : $numbers->less(Bits::ofRows(end($known), $known));
        }

        return $numbers;
    }

    /** Rows of the newcomers. A group that was put around something older is none: hidden, it would take that with it. */
    public function newcomerRows(Scene $scene, Settings $set): Bits
    {
        $numbers = $this->newcomers($scene, $set);
        if ($numbers->isEmpty()) {
            return Bits::none($scene->count());
        }
        $rows = $scene->rowBits($numbers);
        $around = [];
        foreach ($rows->and($scene->groupBits())->rows() as $row) {
            $end = $scene->end($row);
            if ($rows->countBetween($row, $end) <= $end - $row) {
                $around[] = $row;
            }
        }

        return $around === [] ? $rows : $rows->without(Bits::ofRows($scene->count(), $around));
    }
}
