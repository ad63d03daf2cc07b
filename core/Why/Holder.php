<?php

declare(strict_types=1);

namespace VineShelf\Why;

use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;

/** One thing that holds some of an organizer's objects down, or protects them. */
final readonly class Holder
{
    public function __construct(
        /**
         * "layer", "tag" or "folder"; "own" for settings of the objects themselves, "group" for groups above them, "ceiling" of the whole
         * desk, or "isolation".
         */
        public string $what,
        /** Of the layer, tag or folder; 0 for others. */
        public int $number,
        public ?Rung $rung,
        public ?Lock $lock,
        /** Those of the objects that it holds. */
        public Bits $rows,
        /** For "own" and "group": the rows that have the setting. */
        public ?Bits $setters = null,
    ) {}
}
