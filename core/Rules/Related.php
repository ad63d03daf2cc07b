<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** Objects that stand in a relation to what the part picks. */
final readonly class Related implements Node
{
    public function __construct(public Relation $relation, public Node $part) {}

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->related($this);
    }
}
