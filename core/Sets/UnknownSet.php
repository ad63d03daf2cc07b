<?php

declare(strict_types=1);

namespace VineShelf\Sets;

final class UnknownSet extends \RuntimeException
{
    public static function numbered(int $number): self
    {
        return new self("There is no set with the number $number in this project.");
    }

    public static function folder(int $number): self
    {
        return new self("There is no folder with the number $number in this project.");
    }
}
