<?php

declare(strict_types=1);

namespace App\Changes;

use App\Models\Change;

/** What came of taking a change back or doing it again. */
final readonly class Turned
{
    public function __construct(
        /** What was taken back or done again; null when nothing was. */
        public ?Change $change,
        public string $sentence,
        /** What could be taken back or done again instead. */
        public ?Change $instead = null,
        public bool $undo = true,
    ) {}
}
