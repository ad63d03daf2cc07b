<?php

declare(strict_types=1);

namespace VineShelf\Rules;

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
            $this->expression !== null => preg_match($this->expression, $lower) === 1,
            $this->whole => $lower === $this->words,
            default => str_contains($lower, $this->words),
        };
    }

    /** A regular expression for a whole line; bytes, so that it need not check the text. */
    private static function expression(string $words): string
    {
        $any = '(?:[\x00-\x09\x0B-\x7F]|[\xC0-\xFF][\x80-\xBF]+)';

        return '~^'.strtr(preg_quote($words, '~'), ['\*' => '[^\n]*', '\?' => $any]).'$~mD';
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
