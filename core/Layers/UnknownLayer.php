<?php

declare(strict_types=1);

namespace VineShelf\Layers;

final class UnknownLayer extends \RuntimeException
{
    public static function numbered(int $number): self
    {
        return new self("There is no layer with the number $number in this project.");
    }
}
