<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** Objects that came after a view was kept or reviewed. */
final readonly class NewerThan implements Node
{
    public function __construct(public string $view) {}

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->newerThan($this);
    }
}
