<?php

declare(strict_types=1);

namespace VineShelf\Lines;

use VineShelf\Scene\Bits;

/** Objects that two lines want for different layers; the one further up gets them. */
final readonly class Fight
{
    /**
     * @param int  $winner place of a line in the list, from 0
     * @param int  $other  place of a line below it
     * @param Bits $rows   the objects
     */
    public function __construct(public int $winner, public int $other, public Bits $rows) {}
}
