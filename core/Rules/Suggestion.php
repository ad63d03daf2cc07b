<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** One way to go on with a rule. */
final readonly class Suggestion
{
    public function __construct(
        /** What it is called. */
        public string $label,
        /** What stands in the text from $at on, instead of the $length characters that stand there. */
        public string $insert,
        public int $at,
        public int $length,
        /** What it means. */
        public string $meaning = '',
        /** Objects that it would find, null where that says nothing. */
        public ?int $objects = null,
        /** The whole condition that it makes, where it is a value. */
        public string $condition = '',
    ) {}
}
