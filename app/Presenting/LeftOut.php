<?php

declare(strict_types=1);

namespace App\Presenting;

use App\Bench\Bench;
use VineShelf\Rungs\Rung;

/** What a picture leaves out that the model has, by layer. */
final readonly class LeftOut
{
    private const LISTED = 40;

    public function __construct(private Bench $bench) {}

    /** @return array{says: string, layers: list<array{string, int}>} a sentence; layers with how many of their objects, most first */
    public function toArray(): array
    {
        $hidden = $this->bench->shown()->inEffect->rungs()->being(Rung::Hidden->value);
        $count = $hidden->count();
        $all = number_format($this->bench->scene()->count());
        $layers = $count === 0 ? [] : $this->bench->scene()->layers()->histogram($hidden);
        arsort($layers);
        $lines = [];
        foreach (array_slice($layers, 0, self::LISTED, true) as $layer => $objects) {
            $lines[] = [$this->bench->layers()->path((int) $layer), $objects];
        }
        if (count($layers) > self::LISTED) {
            $lines[] = [count($layers) - self::LISTED.' more layers', array_sum(array_slice($layers, self::LISTED))];
        }

        return [
            'says' => $count === 0
                ? "It leaves out nothing: all $all objects are in it."
                : 'It leaves out '.number_format($count)." of the model's $all objects.",
            'layers' => $lines,
        ];
    }
}
