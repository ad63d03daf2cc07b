<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Scene\Bits;

/** The rows that a rule picks, and what it names in vain. */
final readonly class Evaluated
{
    /** @param list<Remark> $remarks */
    public function __construct(public Bits $rows, public array $remarks) {}
}
