<?php

declare(strict_types=1);

namespace VineShelf\Lines;

use VineShelf\Scene\Bits;

/** One line of a list that sorts: which objects it is about, and what becomes of them. */
final readonly class Line
{
    /**
     * @param Bits      $matched scene rows of the objects that it is about
     * @param int       $layer   number of the layer that they go under, 0 to leave that alone
     * @param list<int> $tags    numbers of tags that they get
     * @param string    $name    pattern of their new names, as {@see \VineShelf\Naming\Renaming} has it; empty to leave them alone
     * @param bool      $goesOn  whether lines below it may take them as well
     */
    public function __construct(
        public Bits $matched,
        public int $layer = 0,
        public array $tags = [],
        public string $name = '',
        public bool $goesOn = false,
    ) {}
}
