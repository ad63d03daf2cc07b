<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Refused;
use Illuminate\Http\Request;

/** A camera as the canvas sends it. */
final class Sight
{
    /**
     * @param string $field that is refused when it cannot be read
     *
     * @return array{eye: list<float>, target: list<float>, fov: float, tall?: float, up?: list<float>, aspect?: float}
     *
     * @throws Refused
     */
    public static function in(Request $request, string $field): array
    {
        $given = json_decode($request->string('camera')->value(), true);
        $camera = is_array($given) ? $given : [];
        $sight = [
            'eye' => self::point($camera['eye'] ?? null, $field),
            'target' => self::point($camera['target'] ?? null, $field),
            'fov' => max(1.0, min(150.0, self::number($camera['fov'] ?? null) ?? 45.0)),
        ];
        $tall = self::number($camera['tall'] ?? null);
        if ($tall !== null) {
            $sight += ['tall' => max(0.001, min(1e7, $tall))];
        }
        if (isset($camera['up'])) {
            $sight += ['up' => self::point($camera['up'], $field)];
        }
        $aspect = self::number($camera['aspect'] ?? null);

        return $sight + ($aspect === null ? [] : ['aspect' => max(0.05, min(20.0, $aspect))]);
    }

    private static function number(mixed $value): ?float
    {
        return (is_int($value) || is_float($value)) && is_finite((float) $value) ? (float) $value : null;
    }

    /**
     * @return list<float> metres
     *
     * @throws Refused
     */
    private static function point(mixed $value, string $field): array
    {
        $numbers = is_array($value) ? array_values(array_filter(array_map(self::number(...), $value), is_float(...))) : [];
        if (count($numbers) !== 3) {
            throw new Refused('The camera could not be read; move it a little and try again.', $field);
        }

        return $numbers;
    }
}
