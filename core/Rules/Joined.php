<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** A rule and one condition more. */
final class Joined
{
    /**
     * @param Node|null $tree null for no rule yet
     * @param string    $way  "and" narrows, "or" widens, "without" leaves out; "only" narrows, and takes the place of conditions on the
     *                        same field
     */
    public static function by(?Node $tree, Node $condition, string $way): Node
    {
        if ($way === 'or' && $tree !== null) {
            $parts = static fn (Node $node): array => $node instanceof AnyOf ? $node->parts : [$node];

            return new AnyOf([...$parts($tree), ...$parts($condition)]);
        }
        $parts = $tree === null ? [] : ($tree instanceof AllOf ? $tree->parts : [$tree]);
        if ($way === 'only') {
            $parts = array_values(
                array_filter(
                    $parts,
                    static fn (Node $part): bool => self::fieldOf($part) === null || self::fieldOf($part) !== self::fieldOf($condition),
                ),
            );
        }
        $parts[] = $way === 'without' ? new NoneOf($condition) : $condition;

        return count($parts) === 1 ? $parts[0] : new AllOf($parts);
    }

    private static function fieldOf(Node $node): ?string
    {
        return match (true) {
            $node instanceof NoneOf => self::fieldOf($node->part),
            $node instanceof TextIs => ($node->isProperty ? 'property ' : '').mb_strtolower($node->field),
            default => null,
        };
    }
}
