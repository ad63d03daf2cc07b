<?php

declare(strict_types=1);

namespace App\Ledger;

/** One way to look at a project as rows. */
interface Lens
{
    public function total(): int;

    /** @return list<Row> */
    public function rows(int $from, int $count): array;

    /** @return list<string> the keys of the rows */
    public function keys(int $from, int $count): array;

    /** How many objects were found. */
    public function hits(): int;

    /** The scene row of a hit, counted from 0 in the order in which they stand first; those that stand in no row come last. */
    public function hit(int $index): ?int;

    /** Which hit an object is; null when it is none. @param int $row its scene row */
    public function hitOf(int $row): ?int;

    /** Where the row with the key stands, counted from 0; null when it is folded away. */
    public function position(string $key): ?int;
}
