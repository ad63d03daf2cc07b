<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Measure;

/**
 * Writes a tree as text that {@see Parser} reads as the same tree.
 *
 * @implements Visitor<string>
 */
final class Printer implements Visitor
{
    public static function print(Node $node): string
    {
        return $node->accept(new self);
    }

    public function anyOf(AnyOf $node): string
    {
        return implode(' or ', array_map(static fn (Node $part): string => self::enclosed($part, AnyOf::class), $node->parts));
    }

    public function allOf(AllOf $node): string
    {
        $enclosed = static fn (Node $part): string => self::enclosed($part, AnyOf::class, AllOf::class);

        return implode(' and ', array_map($enclosed, $node->parts));
    }

    public function noneOf(NoneOf $node): string
    {
        return self::negated($node->part);
    }

    public function related(Related $node): string
    {
        return $node->relation->value.' ('.$node->part->accept($this).')';
    }

    public function textIs(TextIs $node): string
    {
        return self::text($node);
    }

    public function numberIs(NumberIs $node): string
    {
        return self::number($node);
    }

    public function stateIs(StateIs $node): string
    {
        return $node->state->value;
    }

    public function hasProperty(HasProperty $node): string
    {
        return 'has '.self::thing($node->name);
    }

    public function newerThan(NewerThan $node): string
    {
        return 'is newer than '.self::quoted($node->view);
    }

    public function isInView(IsInView $node): string
    {
        return ($node->state === State::Shown ? 'in view ' : $node->state->value.' in ').self::quoted($node->view);
    }

    /** Words in quotes, whatever they hold. */
    public static function quoted(string $words): string
    {
        return '"'.addcslashes($words, '"\\').'"';
    }

    /** A word as it is where that can be read back, otherwise in quotes. */
    public static function word(string $words): string
    {
        return self::isWord($words) && ! in_array(mb_strtolower($words), Parser::RESERVED, true) && strpbrk($words, '*?') === false
            ? $words
            : self::quoted($words);
    }

    /** @param class-string<Node> ...$loose */
    private static function enclosed(Node $node, string ...$loose): string
    {
        return in_array($node::class, $loose, true) ? '('.self::print($node).')' : self::print($node);
    }

    private static function negated(Node $part): string
    {
        return match (true) {
            $part instanceof StateIs => str_replace(
                [' ', 'has not'],
                [$part->state->verb() === 'is' ? ' not ' : ' no ', 'has no'],
                $part->state->value,
            ),
            $part instanceof HasProperty => 'has no '.self::thing($part->name),
            $part instanceof NewerThan => 'is not newer than '.self::quoted($part->view),
            $part instanceof IsInView && $part->state !== State::Shown => "is not {$part->state->word()} in ".self::quoted($part->view),
            default => 'not '.self::enclosed($part, AnyOf::class, AllOf::class),
        };
    }

    private static function thing(string $property): string
    {
        return State::named('has', $property) === null && mb_strtolower($property) !== 'no' && self::isWord($property)
            ? $property
            : self::quoted($property);
    }

    private static function text(TextIs $node): string
    {
        $words = $node->quoted ? self::quoted($node->words) : $node->words;
        if (
            $node->field === Field::Name->value &&
            ! $node->isProperty &&
            $node->test === TextTest::Has &&
            ($node->quoted || ! in_array(mb_strtolower($words), Parser::RESERVED, true))
        ) {
            return $words;
        }

        return ($node->isProperty ? self::property($node->field) : $node->field).$node->test->value.$words;
    }

    private static function number(NumberIs $node): string
    {
        $field = $node->isProperty ? self::property($node->field) : $node->field;
        $low = $node->number === null ? '' : $node->number->digits.$node->number->unit;
        $high = $node->upTo === null ? '' : $node->upTo->digits.$node->upTo->unit;

        return match ($node->test) {
            NumberTest::Within => "$field = $low..$high",
            NumberTest::NotWithin => "$field != $low..$high",
            default => "$field {$node->test->value} $low",
        };
    }

    /** The name of a property of the file as it stands before an operator: in quotes where it could be taken for something else. */
    public static function property(string $name): string
    {
        $lower = mb_strtolower($name);
        $taken = Field::tryFrom($lower) !== null || Measure::tryFrom($lower) !== null || isset(Comparisons::ALIASES[$lower]);

        return $taken || ! self::isWord($name) ? self::quoted($name) : $name;
    }

    private static function isWord(string $words): bool
    {
        return preg_match('~^(?:[^\s"():=<>!]|!(?!=))+$~uD', $words) === 1;
    }
}
