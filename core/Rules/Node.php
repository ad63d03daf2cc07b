<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** A part of a rule's tree. Places in the text do not belong to it: the same rule written differently is the same tree. */
interface Node
{
    /**
     * Has the visitor do what it does with a part of this type.
     *
     * @template T
     *
     * @param Visitor<T> $visitor
     *
     * @return T
     */
    public function accept(Visitor $visitor): mixed;
}
