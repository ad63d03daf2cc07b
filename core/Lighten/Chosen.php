<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

/** Which things are lowered to what, so that all fit. */
final readonly class Chosen
{
    /**
     * @param array<int, int> $rungs  by place among the {@see Options}: only what is lowered
     * @param int             $cost   triangles of all
     * @param float           $loss   part of the picture
     * @param float           $bound  no choice that fits loses less
     */
    public function __construct(public array $rungs, public int $cost, public float $loss, public float $bound) {}
}
