<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** Objects that at least one of the parts picks. */
final readonly class AnyOf implements Node
{
    /** @param list<Node> $parts two or more */
    public function __construct(public array $parts) {}

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->anyOf($this);
    }
}
