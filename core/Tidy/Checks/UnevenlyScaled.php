<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts that are stretched along one way, or skewed. */
final readonly class UnevenlyScaled extends Plain
{
    private const ALLOWED = 1.001;

    public function id(): string
    {
        return 'uneven';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part is stretched or skewed', 'parts are stretched or skewed');
    }

    public function why(): string
    {
        return 'Screws become ovals, and profiles have other thicknesses than in the list. Skewed ones need a matrix to be written.';
    }

    public function find(Model $model): array
    {
        return self::together(
            $model,
            Placements::where($model, static function (array $m): bool {
                $x = sqrt($m[1] ** 2 + $m[5] ** 2 + $m[9] ** 2);
                $y = sqrt($m[2] ** 2 + $m[6] ** 2 + $m[10] ** 2);
                $z = sqrt($m[3] ** 2 + $m[7] ** 2 + $m[11] ** 2);
                $least = min($x, $y, $z);
                // What is flattened to nothing is of no size, which is told elsewhere.
                if ($least <= 1e-12) {
                    return false;
                }
                $skew = max(
                    abs($m[1] * $m[2] + $m[5] * $m[6] + $m[9] * $m[10]) / ($x * $y),
                    abs($m[2] * $m[3] + $m[6] * $m[7] + $m[10] * $m[11]) / ($y * $z),
                    abs($m[3] * $m[1] + $m[7] * $m[5] + $m[11] * $m[9]) / ($z * $x),
                );

                return max($x, $y, $z) / $least > self::ALLOWED || $skew > 1e-3;
            }),
        );
    }
}
