<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** Objects that a view shows, or has at a rung: "in view", "is ghost in". */
final readonly class IsInView implements Node
{
    /** @param State $state {@see State::Shown}, or one of a rung */
    public function __construct(public string $view, public State $state = State::Shown) {}

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->isInView($this);
    }
}
