<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;

/** Layers that came with a file are those that were there before: what they hold goes there, and they go. */
final class MatchLayers extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    /** @param array<int, int> $into number of the layer that each one is, by its own */
    public function __construct(Bench $bench, array $into)
    {
        $steps = $names = [];
        foreach (array_unique($into) as $target) {
            $going = array_keys($into, $target, true);
            $names = [...$names, ...array_map(static fn (int $number): string => $bench->layers()->get($number)->name, $going)];
            array_push($steps, ...(new MergeLayers($bench, $going, $target))->edits()->steps);
        }
        $this->edits = new Edits($steps);
        $this->title = 'Match '.(count($names) === 1 ? "layer $names[0]" : count($names).' layers').' with what is here';
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
