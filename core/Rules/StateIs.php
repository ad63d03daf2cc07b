<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** A condition on a state: "is hidden", "has children". */
final readonly class StateIs implements Node
{
    public function __construct(public State $state) {}

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->stateIs($this);
    }
}
