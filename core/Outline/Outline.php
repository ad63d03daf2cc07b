<?php

declare(strict_types=1);

namespace VineShelf\Outline;

/**
 * The order in which people arrange what they sort by: a forest of keys, each with a place among its siblings. Layers lie in layers; tags,
 * sets and views lie in folders.
 */
final class Outline
{
    /** @var array<int|string, int|string|null> by key; null at the top */
    private array $parents = [];

    /** @var array<array-key, list<int|string>> by parent; "" holds the top ones */
    private array $inside = [];

    /** @var list<array{int|string, int}>|null */
    private ?array $walk = null;

    /**
     * @param array<int|string, array{int|string|null, int, int}> $rows parent, place among its siblings, and what decides where places are
     *     the same; by key
     */
    public function __construct(array $rows)
    {
        uasort($rows, static fn (array $a, array $b): int => [$a[1], $a[2]] <=> [$b[1], $b[2]]);
        foreach ($rows as $key => [$parent]) {
            // What lies in something that is not there lies at the top.
            $parent = $parent !== null && isset($rows[$parent]) ? $parent : null;
            $this->parents[$key] = $parent;
            $this->inside[$parent ?? ''][] = $key;
        }
    }

    /** @return list<int|string> what lies directly in a row, or at the top for null */
    public function inside(int|string|null $key): array
    {
        return $this->inside[$key ?? ''] ?? [];
    }

    /** What the row lies in, null at the top. */
    public function parent(int|string $key): int|string|null
    {
        return $this->parents[$key] ?? null;
    }

    /** @return list<int|string> the row itself and all that lies in it, at any depth */
    public function withNested(int|string $key): array
    {
        $keys = [$key];
        for ($index = 0; $index < count($keys); $index++) {
            foreach ($this->inside($keys[$index]) as $inner) {
                $keys[] = $inner;
            }
        }

        return $keys;
    }

    /** @return list<int|string> the row and those above it, nearest first */
    public function chain(int|string $key): array
    {
        $chain = [];
        for ($at = $key; $at !== null && array_key_exists($at, $this->parents) && count($chain) < count($this->parents);) {
            $chain[] = $at;
            $at = $this->parents[$at];
        }

        return $chain;
    }

    /** @return list<array{int|string, int}> every row with its depth, from the top down in the order on screen */
    public function walk(): array
    {
        if ($this->walk !== null) {
            return $this->walk;
        }
        $walk = [];
        $stack = array_map(static fn (int|string $key): array => [$key, 0], array_reverse($this->inside(null)));
        while (($top = array_pop($stack)) !== null) {
            $walk[] = $top;
            foreach (array_reverse($this->inside($top[0])) as $inner) {
                $stack[] = [$inner, $top[1] + 1];
            }
        }

        return $this->walk = $walk;
    }

    /**
     * The lowest of each row's own value and those of the rows above it.
     *
     * @param array<int|string, int> $own
     *
     * @return array<int|string, int>
     */
    public function lowest(array $own, int $otherwise): array
    {
        $lowest = [];
        foreach ($this->walk() as [$key]) {
            $above = $this->parents[$key];
            $lowest[$key] = min($own[$key] ?? $otherwise, $above === null ? $otherwise : $lowest[$above] ?? $otherwise);
        }

        return $lowest;
    }

    /**
     * The highest along the same chain.
     *
     * @param array<int|string, int> $own
     *
     * @return array<int|string, int>
     */
    public function highest(array $own, int $otherwise): array
    {
        $highest = [];
        foreach ($this->walk() as [$key]) {
            $above = $this->parents[$key];
            $highest[$key] = max($own[$key] ?? $otherwise, $above === null ? $otherwise : $highest[$above] ?? $otherwise);
        }

        return $highest;
    }
}
