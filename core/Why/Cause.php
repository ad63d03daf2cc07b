<?php

declare(strict_types=1);

namespace VineShelf\Why;

use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;

/** One setting below Full, or above Open, in the chain of an object. */
final readonly class Cause
{
    public function __construct(
        /** "layer", "object", or "isolation": other objects are isolated. */
        public string $what,
        public int $number,
        /** Whether the setting is the object's own, and not one of a group or a layer above. */
        public bool $own,
        public ?Rung $rung,
        public ?Lock $lock,
    ) {}
}
