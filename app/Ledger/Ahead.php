<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Group;
use App\Bench\Groups;
use VineShelf\Search\NameIndex;

/** Jumping ahead in the ledger by the start of a name. */
final readonly class Ahead
{
    /** Objects whose names start alike that are looked at. */
    private const OBJECTS = 500;

    public function __construct(private Bench $bench, private Ledger $ledger) {}

    /**
     * The place of the next such row after a place, from the top again after the last one; null when there is none. @param string $starts
     * in lower case
     */
    public function place(string $starts, int $after): ?int
    {
        $keys = $this->groups($starts);
        foreach (NameIndex::starting($this->bench->scene(), strtr($starts, "\n\r", '  '))->slice(0, self::OBJECTS) as $row) {
            $keys[] = 'O'.$this->bench->scene()->number($row);
        }
        $places = array_filter(array_map($this->ledger->lens()->position(...), $keys), is_int(...));
        $later = array_filter($places, static fn (int $place): bool => $place > $after);

        return $later !== [] ? min($later) : ($places === [] ? null : min($places));
    }

    /** @return list<string> keys of rows that are no objects */
    private function groups(string $starts): array
    {
        $keys = [];
        foreach ($this->ledger->name === 'layers' ? $this->bench->layers()->walk() : [] as [$layer]) {
            if (str_starts_with(mb_strtolower($layer->name), $starts)) {
                $keys[] = "L$layer->number";
            }
        }
        $fitting = static fn (Group $group): bool => str_starts_with(mb_strtolower($group->name), $starts);
        $groups = array_filter((new Groups($this->bench))->allOf($this->ledger->name), $fitting);

        return [...$keys, ...array_map(static fn (Group $group): string => $group->key, array_values($groups))];
    }
}
