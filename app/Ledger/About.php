<?php

declare(strict_types=1);

namespace App\Ledger;

use VineShelf\Colours\Line;

/** What a row of a layer, tag, folder or set says of itself beside its name. */
final readonly class About
{
    public function __construct(
        public string $note = '',
        public Line $line = Line::None,
        /** Whether what lies in it is shown one at a time. */
        public bool $oneAtATime = false,
        /** Whether it is the one that is shown among its siblings; null where they are shown together. */
        public ?bool $isShown = null,
        /** Of a live set. */
        public ?string $rule = null,
        /** What its rule names in vain. */
        public string $remark = '',
        /** Members of a fixed set that are gone from the project. */
        public int $missing = 0,
        /** "tags" or "sets" for a folder. */
        public string $holds = '',
        /** Why exports leave out what is in it. */
        public string $heldBack = '',
    ) {}
}
