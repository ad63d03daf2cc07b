<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Layers\Layer;
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
     */
    public function __construct(public array $layers, public array $folders, public int $object, public Bits $strangers) {}

    public function layer(int $number): bool
    {
        return $number === Layer::UNSORTED || isset($this->layers[$number]);
    }

    public function folder(int $number): bool
    {
        return isset($this->folders[$number]);
    }

    /** Numbers of the objects that the view has nothing to say about yet: those that it does not know, and nobody has set in it. */
    public function newcomers(Scene $scene, Settings $set): Bits
    {
        $last = intdiv(strlen($scene->column('rows')), 4) - 1;
        $numbers = $this->object < $last ? Bits::ofRanges($last, [[$this->object + 1, $last]]) : Bits::none(max(0, $last));
        $numbers = $numbers->with($this->strangers);
        foreach ([$set->objects, $set->objectsAlone] as $objects) {
            foreach ($objects as $those) {
                $numbers = $numbers->less($those);
            }
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
