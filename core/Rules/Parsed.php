<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** A rule's tree, and where in the text each condition's words stand. */
final readonly class Parsed
{
    /** @param \WeakMap<Node, array{int, int}> $places first character and length, by condition */
    public function __construct(public Node $tree, private \WeakMap $places) {}

    /** @return array{int, int} first character, counted from 0, and length */
    public function place(Node $node): array
    {
        return $this->places[$node] ?? [0, 1];
    }
}
