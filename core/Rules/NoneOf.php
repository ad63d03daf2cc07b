<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** Objects that the part does not pick. */
final readonly class NoneOf implements Node
{
    public function __construct(public Node $part) {}

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->noneOf($this);
    }
}
