<?php

declare(strict_types=1);

namespace VineShelf\Lines\Signs;

use VineShelf\Facts\Facts;
use VineShelf\Rules\Printer;
use VineShelf\Scene\Packed;

/** The class that the file gives them. */
final readonly class Classes implements Sign
{
    public function __construct(private Facts $facts) {}

    public function codes(): array
    {
        return Packed::uint32($this->facts->scene->column('class'), 0, $this->facts->scene->count() + 1);
    }

    public function rule(int $code): string
    {
        return 'class='.Printer::word((string) $this->facts->words('class.words')[$code]);
    }

    public function isOwn(): bool
    {
        return true;
    }
}
