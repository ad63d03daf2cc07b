<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts that are turned inside out by their placement. */
final readonly class Mirrored extends Plain
{
    public function id(): string
    {
        return 'mirrored';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part is mirrored', 'parts are mirrored');
    }

    public function why(): string
    {
        return 'Letters on them run backwards, and some programs show their insides. It may be meant: the left door of a pair.';
    }

    public function find(Model $model): array
    {
        return self::together(
            $model,
            Placements::where(
                $model,
                static fn (array $m): bool => $m[1] * ($m[6] * $m[11] - $m[7] * $m[10]) -
                    $m[2] * ($m[5] * $m[11] - $m[7] * $m[9]) +
                    $m[3] * ($m[5] * $m[10] - $m[6] * $m[9]) <
                    0,
            ),
        );
    }
}
