<?php

declare(strict_types=1);

namespace VineShelf\Layers;

use VineShelf\Locks\Lock;
use VineShelf\Outline\Outline;

/** The layers of a project, Unsorted first, then as the people ordered them. */
final class LayerTree
{
    /** @var array<int, Layer> by number */
    private array $byNumber = [];

    public readonly Outline $outline;

    /** @var list<array{Layer, int}>|null */
    private ?array $walk = null;

    /** @param iterable<Layer> $layers */
    public function __construct(iterable $layers)
    {
        $rows = [];
        foreach ($layers as $layer) {
            $this->byNumber[$layer->number] = $layer;
            $rows[$layer->number] = [$layer->parent ?: null, $layer->isUnsorted() ? PHP_INT_MIN : $layer->position, $layer->number];
        }
        $this->outline = new Outline($rows);
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

    /** @return list<int> numbers of the layers in a layer; 0 for the top ones */
    public function inside(int $number): array
    {
        return array_map(intval(...), $this->outline->inside($number ?: null));
    }

    /** @return list<int> the layer itself and every layer nested in it */
    public function withNested(int $number): array
    {
        return array_map(intval(...), $this->outline->withNested($number));
    }

    /** @return list<Layer> the layer and those above it, nearest first */
    public function chain(int $number): array
    {
        return array_map(fn (int|string $link): Layer => $this->byNumber[(int) $link], $this->outline->chain($number));
    }

    /** The names from the top down to the layer, for example "Pool hall › Stands". */
    public function path(int $number): string
    {
        return implode(' › ', array_reverse(array_map(static fn (Layer $layer): string => $layer->name, $this->chain($number))));
    }

    /** @return list<array{Layer, int}> every layer with its depth, from the top down in the order on screen */
    public function walk(): array
    {
        return $this->walk ??= array_map(fn (array $entry): array => [$this->byNumber[(int) $entry[0]], $entry[1]], $this->outline->walk());
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
        /** @var array<int, int> */
        return $this->outline->lowest($own, $otherwise);
    }

    /** @return array<int, int> lock in effect by layer number: the highest of the layer and the layers above it */
    public function locks(): array
    {
        /** @var array<int, int> */
        return $this->outline->highest(array_map(static fn (Layer $layer): int => $layer->lock->value, $this->byNumber), Lock::Open->value);
    }
}
