<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** Objects that have a property of the file, whatever its value. */
final readonly class HasProperty implements Node
{
    public function __construct(public string $name) {}

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->hasProperty($this);
    }
}
