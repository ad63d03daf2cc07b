<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** A file would be longer than its format can say. */
final class FileTooLong extends \RuntimeException
{
    /** @param int $most bytes that it may take */
    public static function binaryGltf(int $most): self
    {
        return new self(
            sprintf('Binary glTF ends at %.1f GB, and this would be longer: export fewer objects, or at lower rungs.', $most / 1e9),
        );
    }
}
