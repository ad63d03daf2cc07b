<?php

declare(strict_types=1);

namespace App\Changes\Edits;

/** The project is no longer as a step expects it; the message is the end of a sentence that begins with the change. */
final class OutOfStep extends \RuntimeException
{
    public static function changed(string $what): self
    {
        return new self("$what has changed meanwhile");
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
