<?php

declare(strict_types=1);

namespace App\Changes;

use VineShelf\Rungs\Rows;
use VineShelf\Rungs\Rung;

/** Rows that are lowered in what a view keeps, on one line: an organizer, or objects at one rung. */
final readonly class LoweredRows
{
    public function __construct(
        /** "L5", "T3", "F2" for an organizer; "O0" to "O4" for objects at a rung, and "W0" to "W4" for those that are thinned to work. */
        public string $id,
        public string $name,
        public Rung $rung,
        public Rows $rows,
        /** What kind of lowering it is: the digit of the rung, or "lighten". */
        public string $kind,
        /** Whether it is for pictures as well. */
        public bool $isMeant,
    ) {}

    /** For example "Roof" or "12 objects". */
    public function what(): string
    {
        $count = $this->rows->objects->count();

        return match (true) {
            $this->name !== '' => $this->name,
            $this->kind === 'lighten' => number_format($count).($count === 1 ? ' object' : ' objects').' by Lighten',
            default => number_format($count).($count === 1 ? ' object' : ' objects'),
        };
    }
}
