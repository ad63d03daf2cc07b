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

    /** Where the row with the key stands, counted from 0; null when it is folded away. */
    public function position(string $key): ?int;
}
