<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Measure;

/** Writes a tree as text that {@see Parser} reads as the same tree. */
final class Printer
{
    public static function print(Node $node): string
    {
        return match (true) {
            $node instanceof AnyOf => implode(
                ' or ',
                array_map(static fn (Node $part): string => self::enclosed($part, AnyOf::class), $node->parts),
            ),
            $node instanceof AllOf => implode(
                ' and ',
                array_map(static fn (Node $part): string => self::enclosed($part, AnyOf::class, AllOf::class), $node->parts),
            ),
            $node instanceof NoneOf => self::negated($node->part),
            $node instanceof Related => $node->relation->value.' ('.self::print($node->part).')',
            $node instanceof TextIs => self::text($node),
            $node instanceof NumberIs => self::number($node),
            $node instanceof StateIs => $node->state->value,
            $node instanceof HasProperty => 'has '.self::thing($node->name),
            $node instanceof NewerThan => 'is newer than '.self::quoted($node->view),
            default => throw new \LogicException('A rule has no part of the type '.$node::class.'.'),
        };
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
        $taken = Field::tryFrom($lower) !== null || Measure::tryFrom($lower) !== null || isset(Parser::ALIASES[$lower]);

        return $taken || ! self::isWord($name) ? self::quoted($name) : $name;
    }

    private static function isWord(string $words): bool
    {
        return preg_match('~^(?:[^\s"():=<>!]|!(?!=))+$~uD', $words) === 1;
    }
}
