<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

/** What some ways want to know beside the pick. */
final readonly class Asked
{
    /** How two sizes may differ to count as the same, as a share of the larger one. */
    public const TOLERANCE = 0.02;

    public function __construct(
        /** For sizes, as a share of the larger one. */
        public float $tolerance = self::TOLERANCE,
        /** For properties: only this one; all that the pick shares when null. */
        public ?string $property = null,
    ) {}
}
