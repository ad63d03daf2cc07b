<?php

declare(strict_types=1);

namespace App\Workbench;

/** One line of what is known of the pick. */
final readonly class Detail
{
    public function __construct(
        public string $label,
        /** Its value, or how many different ones there are. */
        public string $text,
        /** How many have it, or what else is to be said; "" for nothing. */
        public string $note = '',
        /** The rule that finds everything with the same value; "" where there is none. */
        public string $same = '',
        /** The property of their own that it is, which can be changed; "" for others. */
        public string $own = '',
        /** Its different values, each with how many have it, for the hover text. */
        public string $values = '',
    ) {}
}
