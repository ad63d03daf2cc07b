<?php

declare(strict_types=1);

namespace App\Workbench;

/** What a person's machine is asked to draw at most while they work. */
final class Budget
{
    /** @return array{triangles: int, calls: int, megabytes: int} */
    public static function most(): array
    {
        return [
            'triangles' => (int) config('shelf.budget'),
            'calls' => (int) config('shelf.calls'),
            'megabytes' => (int) config('shelf.megabytes'),
        ];
    }

    /** @param array{drawn: int, triangles: int} $weight triangles at the rungs in effect, and at Full */
    public static function words(array $weight): string
    {
        $most = array_map(number_format(...), self::most());

        return "What the canvas draws, of at most {$most['triangles']} triangles, {$most['calls']} calls and {$most['megabytes']} MB. ".
            'At the rungs in effect the model has '.
            number_format($weight['drawn']).
            ' triangles, at Full '.
            number_format($weight['triangles']).
            '.';
    }
}
