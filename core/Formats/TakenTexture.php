<?php

declare(strict_types=1);

namespace VineShelf\Formats;

final readonly class TakenTexture
{
    public function __construct(
        public string $name,
        /** Wraps of u and v: "repeat", "mirror" or "clamp". */
        public string $wrapU,
        public string $wrapV,
    ) {}
}
