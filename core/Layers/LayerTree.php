<?php

declare(strict_types=1);

namespace VineShelf\Layers;

use VineShelf\Locks\Lock;

/** The layers of a project, Unsorted first, then as the people ordered them. */
final class LayerTree
{
    /** @var array<int, Layer> by number */
    private array $byNumber = [];

    /** @var array<int, list<int>> numbers of the layers in each layer; 0 holds the top ones */
    private array $inside = [];

    /** @var list<array{Layer, int}>|null */
    private ?array $walk = null;

    /** @param iterable<Layer> $layers */
    public function __construct(iterable $layers)
    {
        $sorted = [];
        foreach ($layers as $layer) {
            $sorted[] = $layer;
        }
        usort(
            $sorted,
            static fn (Layer $a, Layer $b): int => [$b->isUnsorted(), $a->position, $a->number] <=> [
                $a->isUnsorted(),
                $b->position,
                $b->number,
            ],
        );
        foreach ($sorted as $layer) {
            $this->byNumber[$layer->number] = $layer;
        }
        foreach ($sorted as $layer) {
            $this->inside[isset($this->byNumber[$layer->parent]) ? $layer->parent : 0][] = $layer->number;
        }
    }

    public function has(int $number): bool
    {
        return isset($this->byNumber[$number]);
    }

    public function get(int $number): Layer
    {
        return $this->byNumber[$number] ?? throw UnknownLayer::numbered($number);
    }

    public function count(): int
    {
        return count($this->byNumber);
    }

    /** @return list<int> */
    public function inside(int $number): array
    {
        return $this->inside[$number] ?? [];
    }

    /** @return list<int> the layer itself and every layer nested in it */
    public function withNested(int $number): array
    {
        $numbers = [$number];
        for ($index = 0; $index < count($numbers); $index++) {
            array_push($numbers, ...$this->inside($numbers[$index]));
        }

        return $numbers;
    }

    /** @return list<Layer> the layer and those above it, nearest first */
    public function chain(int $number): array
    {
        $chain = [];
        while (isset($this->byNumber[$number]) && count($chain) <= count($this->byNumber)) {
            $chain[] = $this->byNumber[$number];
            $number = $this->byNumber[$number]->parent;
        }

        return $chain;
    }

    /** The names from the top down to the layer, for example "Pool hall › Stands". */
    public function path(int $number): string
    {
        return implode(' › ', array_reverse(array_map(static fn (Layer $layer): string => $layer->name, $this->chain($number))));
    }

    /** @return list<array{Layer, int}> every layer with its depth, from the top down in the order on screen */
    public function walk(): array
    {
        if ($this->walk !== null) {
            return $this->walk;
        }
        $walk = [];
        $stack = array_map(static fn (int $number): array => [$number, 0], array_reverse($this->inside(0)));
        while (($top = array_pop($stack)) !== null) {
            [$number, $depth] = $top;
            $walk[] = [$this->byNumber[$number], $depth];
            foreach (array_reverse($this->inside($number)) as $inner) {
                $stack[] = [$inner, $depth + 1];
            }
        }

        return $this->walk = $walk;
    }

    /**
     * The lowest of each layer's own value and those of the layers above it.
     *
     * @param array<int, int> $own       by layer number
     * @param int             $otherwise for layers without a value
     *
     * @return array<int, int> by layer number
     */
    public function lowest(array $own, int $otherwise): array
    {
        $lowest = [];
        foreach ($this->walk() as [$layer]) {
            $lowest[$layer->number] = min($own[$layer->number] ?? $otherwise, $lowest[$layer->parent] ?? $otherwise);
        }

        return $lowest;
    }

    /** @return array<int, int> lock in effect by layer number: the highest of the layer and the layers above it */
    public function locks(): array
    {
        $locks = [];
        foreach ($this->walk() as [$layer]) {
            $locks[$layer->number] = max($layer->lock->value, $locks[$layer->parent] ?? Lock::Open->value);
        }

        return $locks;
    }
}
