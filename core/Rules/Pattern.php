<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Search\NameIndex;

/**
 * Compares texts with the words of a condition. Case does not matter, accents do. With `:` the words may stand anywhere in the text,
 * unless they hold * or ?: those describe the whole text, as `=` always does.
 */
final readonly class Pattern
{
    private string $words;

    private ?string $expression;

    public bool $whole;

    private bool $not;

    public function __construct(TextIs $condition)
    {
        $this->words = mb_strtolower($condition->words);
        $this->not = $condition->test === TextTest::IsNot;
        $this->whole = $condition->test !== TextTest::Has || $condition->hasWildcards();
        $this->expression = $condition->hasWildcards() ? self::expression($this->words) : null;
    }

    public function matches(string $text): bool
    {
        return $this->resembles(mb_strtolower($text)) !== $this->not;
    }

    /** As {@see matches()}, but of a text that is in lower case, and without turning "is not" around. */
    public function resembles(string $lower): bool
    {
        return match (true) {
            $this->expression !== null => NameIndex::matches($this->expression, $lower),
            $this->whole => $lower === $this->words,
            default => str_contains($lower, $this->words),
        };
    }

    /**
     * A regular expression for a whole line; bytes, so that it need not check the text.
     *
     * Between two stars, the first place where a piece fits is always good enough, so nothing is ever tried twice: each piece is taken at
     * once and for good (an atomic group), and a line costs what its length and the number of pieces cost, however many stars there are.
     */
    private static function expression(string $words): string
    {
        $any = '(?:[\x00-\x09\x0B-\x7F]|[\xC0-\xFF][\x80-\xBF]++)';
        $pieces = array_map(
            static fn (string $piece): string => str_replace('\?', $any, preg_quote($piece, '~')),
            explode('*', (string) preg_replace('~\*+~', '*', $words)),
        );
        $last = count($pieces) - 1;
        $expression = array_shift($pieces);
        foreach ($pieces as $at => $piece) {
            $expression .= match (true) {
                $at + 1 < $last => "(?>[^\n]*?$piece)",
                $piece === '' => '[^\n]*+',
                default => "[^\n]*$piece",
            };
        }

        return "~^$expression$~mD";
    }

    /** For searching many lines at once; null when there are no wildcards. */
    public function regular(): ?string
    {
        return $this->expression;
    }

    public function words(): string
    {
        return $this->words;
    }
}
