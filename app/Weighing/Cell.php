<?php

declare(strict_types=1);

namespace App\Weighing;

use VineShelf\Weights\Weight;

/** One part of the map of weights. */
final readonly class Cell
{
    public function __construct(
        /** What it stands for, see {@see Parts}. */
        public string $key,
        public string $name,
        /** As "#3f7a63". */
        public string $colour,
        public int $objects,
        /** At Full. */
        public Weight $weight,
        /** Whether there is more to see inside. */
        public bool $isDeep,
    ) {}
}
