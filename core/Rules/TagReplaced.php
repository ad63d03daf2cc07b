<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/**
 * A rule in which a tag is called otherwise: where a condition means the tag that goes, the one that stays is meant as well, or instead
 * where the condition means no other tag.
 *
 * @implements Visitor<Node>
 */
final class TagReplaced implements Visitor
{
    /** @param list<string> $others names of the tags that there are besides the one that goes, the one that stays among them */
    private function __construct(private readonly string $gone, private readonly string $kept, private readonly array $others) {}

    /**
     * @param string       $rule   as people write it
     * @param list<string> $others names of all other tags, the one that stays among them
     *
     * @return string the rule as it was where it does not mean the tag, or cannot be read
     */
    public static function in(string $rule, string $gone, string $kept, array $others): string
    {
        try {
            $tree = Parser::parse($rule)->tree;
        } catch (RuleError) {
            return $rule;
        }
        $replaced = $tree->accept(new self($gone, $kept, $others));

        return Printer::print($replaced) === Printer::print($tree) ? $rule : Printer::print($replaced);
    }

    public function textIs(TextIs $node): Node
    {
        if ($node->isProperty || $node->field !== Field::Tag->value) {
            return $node;
        }
        $means = static fn (string $name): bool => (new Pattern($node))->resembles(mb_strtolower($name));
        if (! $means($this->gone) || $means($this->kept)) {
            return $node;
        }
        $isNot = $node->test === TextTest::IsNot;
        $stays = new TextIs($node->field, $isNot ? TextTest::IsNot : TextTest::Is, $this->kept, true);
        if (array_filter($this->others, $means) === []) {
            return $stays;
        }

        return $isNot ? new AllOf([$node, $stays]) : new AnyOf([$node, $stays]);
    }

    public function allOf(AllOf $node): Node
    {
        return new AllOf(array_map(fn (Node $part): Node => $part->accept($this), $node->parts));
    }

    public function anyOf(AnyOf $node): Node
    {
        return new AnyOf(array_map(fn (Node $part): Node => $part->accept($this), $node->parts));
    }

    public function noneOf(NoneOf $node): Node
    {
        return new NoneOf($node->part->accept($this));
    }

    public function related(Related $node): Node
    {
        return new Related($node->relation, $node->part->accept($this));
    }

    public function numberIs(NumberIs $node): Node
    {
        return $node;
    }

    public function stateIs(StateIs $node): Node
    {
        return $node;
    }

    public function hasProperty(HasProperty $node): Node
    {
        return $node;
    }

    public function newerThan(NewerThan $node): Node
    {
        return $node;
    }

    public function isInView(IsInView $node): Node
    {
        return $node;
    }
}
