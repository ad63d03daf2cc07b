<?php

declare(strict_types=1);

namespace VineShelf\Scene;

final class MissingColumn extends \RuntimeException
{
    public static function named(string $name): self
    {
        return new self("The scene index has no column \"$name\"; build it again.");
    }
}
