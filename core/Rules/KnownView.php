<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** What a view knew when it was kept or last reviewed. */
final readonly class KnownView
{
    public function __construct(
        public string $name,
        /** The newest layer. */
        public int $layer,
        /** The newest object. */
        public int $object,
    ) {}
}
