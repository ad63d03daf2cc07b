<?php

declare(strict_types=1);

namespace VineShelf\Lines;

use VineShelf\Scene\Bits;

/** What one line does in a run. */
final readonly class Took
{
    /**
     * @param Bits             $rows   objects that reach the line and match it
     * @param Bits             $left   those of them that are locked, and stay as they are
     * @param Bits             $filed  those that go under another layer because of it
     * @param array<int, int>  $from   how many of these by the layer that they leave
     * @param array<int, Bits> $tagged those that get a tag because of it, by tag, without those that have it
     * @param Bits             $named  those that get their name by it
     */
    public function __construct(
        public Bits $rows,
        public Bits $left,
        public Bits $filed,
        public array $from,
        public array $tagged,
        public Bits $named,
    ) {}
}
