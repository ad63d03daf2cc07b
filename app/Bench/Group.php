<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Folders\Folder;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;
use VineShelf\Tags\Tag;

/** A tag, set, folder, kind, class, material or source as a row of the ledger that holds objects. */
final class Group
{
    private ?Bits $rows = null;

    /** @param \Closure(): Bits $find the scene rows that belong to it */
    public function __construct(
        /** "K1" for a kind, "K1.3" for a class within it, "M4" for a material, "S2" for a source, "T3", "F2", "E4" for what people made. */
        public readonly string $key,
        public readonly string $name,
        /** "tag", "set", "folder", "kind", "class", "material" or "source". */
        public readonly string $what,
        public readonly string $colour,
        public readonly int $count,
        public readonly int $triangles,
        private readonly \Closure $find,
        /** What it is a row of, where people made it. */
        public readonly Tag|Folder|SelectionSet|null $of = null,
    ) {}

    public function rows(): Bits
    {
        return $this->rows ??= ($this->find)();
    }
}
