<?php

declare(strict_types=1);

namespace VineShelf\Exchange;

/** A file that is no sorting; the message says where and why. */
final class UnreadableSorting extends \RuntimeException
{
    public static function because(string $sentence): self
    {
        return new self($sentence);
    }

    public static function at(string $place, string $what): self
    {
        return new self("The sorting cannot be read: $place $what.");
    }
}
