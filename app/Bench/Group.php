<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Scene\Bits;

/** A kind, class, material or source as a row of the ledger that holds objects. */
final class Group
{
    private ?Bits $rows = null;

    /** @param \Closure(): Bits $find the scene rows that belong to it */
    public function __construct(
        /** "K1" for a kind, "K1.3" for a class within it, "M4" for a material, "S2" for a source. */
        public readonly string $key,
        public readonly string $name,
        /** "kind", "class", "material" or "source". */
        public readonly string $what,
        public readonly string $colour,
        public readonly int $count,
        public readonly int $triangles,
        private readonly \Closure $find,
    ) {}

    public function rows(): Bits
    {
        return $this->rows ??= ($this->find)();
    }
}
