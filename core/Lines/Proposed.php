<?php

declare(strict_types=1);

namespace VineShelf\Lines;

/** A line that explains part of how a model is sorted. */
final readonly class Proposed
{
    /**
     * @param bool $only      whether it is about the objects that the rule finds alone, not what they hold
     * @param int  $explained objects that lie where the line would put them
     * @param int  $otherwise objects that lie under other layers, and would move
     * @param int  $unsorted  objects in Unsorted that would get a home
     */
    public function __construct(
        public string $rule,
        public bool $only,
        public int $layer,
        public int $explained,
        public int $otherwise,
        public int $unsorted,
    ) {}
}
