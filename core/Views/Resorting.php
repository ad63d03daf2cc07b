<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Rungs\OutputSettings;

/** A change of the sorting and the nesting, with what it means to pictures of any view. */
final readonly class Resorting
{
    /**
     * @param OutputSettings $from the project's own, before
     * @param OutputSettings $to   after
     */
    public function __construct(
        public Shift $shift,
        public Regrouping $regrouping,
        public OutputSettings $from,
        public OutputSettings $to,
    ) {}

    public function isEmpty(): bool
    {
        return $this->shift->isEmpty() && $this->regrouping->isEmpty();
    }
}
