<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/**
 * The conditions of a rule, in the order in which they stand.
 *
 * @implements Visitor<list<Node>>
 */
final class Leaves implements Visitor
{
    /** @return list<Node> */
    public static function of(Node $node): array
    {
        return $node->accept(new self);
    }

    public function allOf(AllOf $node): array
    {
        return array_merge(...array_map(fn (Node $part): array => $part->accept($this), $node->parts));
    }

    public function anyOf(AnyOf $node): array
    {
        return array_merge(...array_map(fn (Node $part): array => $part->accept($this), $node->parts));
    }

    public function noneOf(NoneOf $node): array
    {
        return $node->part->accept($this);
    }

    public function related(Related $node): array
    {
        return $node->part->accept($this);
    }

    public function textIs(TextIs $node): array
    {
        return [$node];
    }

    public function numberIs(NumberIs $node): array
    {
        return [$node];
    }

    public function stateIs(StateIs $node): array
    {
        return [$node];
    }

    public function hasProperty(HasProperty $node): array
    {
        return [$node];
    }

    public function newerThan(NewerThan $node): array
    {
        return [$node];
    }

    public function isInView(IsInView $node): array
    {
        return [$node];
    }
}
