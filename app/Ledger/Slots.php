<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Keys;
use VineShelf\Scene\Parked;
use VineShelf\Scene\Pick;

/** In which numbered slots rows of the ledger are parked: objects by themselves, others where a slot holds exactly their objects. */
final class Slots
{
    /** @var array<int, Pick> by slot, only those that hold something */
    private array $picks = [];

    public function __construct(private readonly Bench $bench)
    {
        for ($slot = 1; $slot <= Parked::SLOTS; $slot++) {
            $pick = $bench->parked()->pick($slot);
            if ($pick->count() > 0) {
                $this->picks[$slot] = $pick;
            }
        }
    }

    /** @return list<int> */
    public function of(Row $row): array
    {
        $slots = [];
        foreach ($this->picks as $slot => $pick) {
            if ($row->isObject() ? $pick->has($row->number()) : $this->isAll($row, $pick)) {
                $slots[] = $slot;
            }
        }

        return $slots;
    }

    private function isAll(Row $row, Pick $pick): bool
    {
        return $row->count === $pick->count() &&
            $pick
                ->rows($this->bench->scene())
                ->less(Keys::of([$row->key])->heldIn($this->bench))
                ->isEmpty();
    }
}
