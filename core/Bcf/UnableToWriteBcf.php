<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/** BCF could not be written: mostly because the disk is full. */
final class UnableToWriteBcf extends \RuntimeException
{
    public static function to(string $path): self
    {
        return new self("There is no writing to $path, or not enough room.");
    }
}
