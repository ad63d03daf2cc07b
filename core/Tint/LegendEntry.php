<?php

declare(strict_types=1);

namespace VineShelf\Tint;

/** One colour of a tint and what it stands for. */
final readonly class LegendEntry
{
    public function __construct(
        public string $label,
        /** Hexadecimal, for example "#3f7a63". */
        public string $colour,
        /** How many it colours. */
        public int $objects,
    ) {}
}
