<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Rules\Remark;
use VineShelf\Rules\RuleError;
use VineShelf\Scene\Bits;

/** What a rule finds, or why it cannot be understood. */
final readonly class Found
{
    /** @param list<Remark> $remarks */
    public function __construct(
        /** Null when there is no rule, or none that can be understood. */
        public ?Bits $rows = null,
        public ?RuleError $error = null,
        public array $remarks = [],
    ) {}
}
