<?php

declare(strict_types=1);

namespace VineShelf\Tags;

final class UnknownTag extends \RuntimeException
{
    public static function numbered(int $number): self
    {
        return new self("There is no tag with the number $number in this project.");
    }

    public static function folder(int $number): self
    {
        return new self("There is no folder with the number $number in this project.");
    }
}
