<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** A condition on a text: the name, or a field that holds words. */
final readonly class TextIs implements Node
{
    public function __construct(
        /** A field of {@see Field}, or a property of the file as it was written. */
        public string $field,
        public TextTest $test,
        /** May hold * and ?, unless the words were quoted. */
        public string $words,
        public bool $quoted,
        public bool $isProperty = false,
    ) {}

    /** Whether * and ? in the words stand for any characters. */
    public function hasWildcards(): bool
    {
        return ! $this->quoted && strpbrk($this->words, '*?') !== false;
    }

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->textIs($this);
    }
}
