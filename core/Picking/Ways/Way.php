<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** One way from a pick to its relatives. */
interface Way
{
    /**
     * @param Bits $pick rows
     *
     * @return Bits the rows that it leads to
     */
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits;
}
