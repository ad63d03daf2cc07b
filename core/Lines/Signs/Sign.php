<?php

declare(strict_types=1);

namespace VineShelf\Lines\Signs;

/** Something that objects have in common and that a rule can ask for, such as their class: a code per object. */
interface Sign
{
    /** @return array<int, int> by scene row: which of its values each object shows; 0 or nothing for none */
    public function codes(): array;

    /** A rule that finds the objects with a value. */
    public function rule(int $code): string;

    /** Whether it is about the objects themselves; otherwise about those that hold them. */
    public function isOwn(): bool;
}
