<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/**
 * Goes over a rule's tree: what it does with each type of part.
 *
 * @template T
 */
interface Visitor
{
    /** @return T */
    public function allOf(AllOf $node): mixed;

    /** @return T */
    public function anyOf(AnyOf $node): mixed;

    /** @return T */
    public function noneOf(NoneOf $node): mixed;

    /** @return T */
    public function related(Related $node): mixed;

    /** @return T */
    public function textIs(TextIs $node): mixed;

    /** @return T */
    public function numberIs(NumberIs $node): mixed;

    /** @return T */
    public function stateIs(StateIs $node): mixed;

    /** @return T */
    public function hasProperty(HasProperty $node): mixed;

    /** @return T */
    public function newerThan(NewerThan $node): mixed;

    /** @return T */
    public function isInView(IsInView $node): mixed;
}
