<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** One piece of a rule's text. */
final readonly class Token
{
    public function __construct(
        public TokenKind $kind,
        /** What it says: without its quotes, with escapes undone. */
        public string $text,
        /** Where it starts and how long it is, in characters. */
        public int $at,
        public int $length,
        /** Whether white space stands before it. */
        public bool $apart,
    ) {}

    public function isWord(string ...$words): bool
    {
        return $this->kind === TokenKind::Word && in_array(mb_strtolower($this->text), $words, true);
    }

    public function end(): int
    {
        return $this->at + $this->length;
    }
}
