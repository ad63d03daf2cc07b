<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use VineShelf\Scene\Bits;

/** The project is no longer as a step expects it; the message is the end of a sentence that begins with the change. */
final class OutOfStep extends \RuntimeException
{
    /** @param array<string, Bits> $by what was written instead, as {@see Edit::writes()} has it; nothing where the step says it itself */
    private function __construct(string $message, public readonly array $by = [])
    {
        parent::__construct($message);
    }

    /** @param array<string, Bits> $by */
    public static function changed(string $what, array $by = []): self
    {
        return new self("$what has changed meanwhile", $by);
    }

    public static function missing(string $what): self
    {
        return new self("$what is no longer there");
    }

    public static function needed(string $what, string $by): self
    {
        return new self("$what is still needed: $by");
    }

    public static function taken(string $what): self
    {
        return new self("there is $what already");
    }
}
