<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/** A file that is no BCF, or a broken one. The message is one sentence for the person who gave it. */
final class UnreadableBcf extends \RuntimeException
{
    public static function because(string $sentence): self
    {
        return new self($sentence);
    }

    public static function notBcf(): self
    {
        return new self('This is not a BCF file: a BCF is a zip that holds bcf.version.');
    }

    public static function version(string $version): self
    {
        return new self("This is BCF $version; 2.0, 2.1 and 3.0 are read.");
    }

    public static function broken(string $part, string $why): self
    {
        return new self("$part in the BCF cannot be read: $why.");
    }
}
