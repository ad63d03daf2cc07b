<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** A rule that cannot be understood: what is wrong, what would be right, and where. */
final class RuleError extends \RuntimeException
{
    /**
     * @param int $at     first character, counted from 0
     * @param int $length characters, at least 1
     */
    public function __construct(string $sentence, public readonly int $at, public readonly int $length)
    {
        parent::__construct($sentence);
    }

    public static function at(Token $token, string $sentence): self
    {
        return new self($sentence, $token->at, max(1, $token->length));
    }
}
