<?php

declare(strict_types=1);

namespace VineShelf\Weights;

/** What something costs at the rung that it is drawn at. */
enum Cost: string
{
    case Triangles = 'triangles';
    case Vertices = 'vertices';
    case Calls = 'calls';
    case Bytes = 'bytes';

    /** What one box costs. */
    public function ofBox(): int
    {
        return match ($this) {
            self::Triangles => 12,
            self::Vertices => 24,
            default => 0,
        };
    }

    public function of(Weight $weight): int
    {
        return match ($this) {
            self::Triangles => $weight->triangles,
            self::Vertices => $weight->vertices,
            self::Calls => $weight->calls,
            self::Bytes => $weight->bytes(),
        };
    }
}
