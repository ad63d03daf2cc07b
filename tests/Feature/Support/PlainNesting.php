<?php

declare(strict_types=1);

namespace Tests\Feature\Support;

/** What stands in what, in plain arrays. Whatever cannot be done is said by null, before anything is changed. */
trait PlainNesting
{
    /** @var array<int, bool> whether an object draws nothing, by number */
    public array $isGroup = [];

    /** @var array<int, string> by number */
    public array $names = [];

    /**
     * @param list<int> $numbers
     *
     * @return list<int> those that stand in none of the others
     */
    public function outermost(array $numbers): array
    {
        return array_values(array_filter($numbers, fn (int $number): bool => array_intersect($this->above($number), $numbers) === []));
    }

    /** @return list<int> what an object stands in, the nearest first */
    public function above(int $number): array
    {
        $above = [];
        for ($at = $this->parents[$number]; $at !== 0; $at = $this->parents[$at]) {
            $above[] = $at;
        }

        return $above;
    }

    /**
     * @param list<int> $numbers
     * @param int       $layer   of the group, where as many of them are under one as under another
     */
    public function group(array $numbers, int $new, int $layer): ?self
    {
        $roots = $this->open($this->outermost($numbers));
        $common = null;
        foreach ($roots as $root) {
            $common = array_values($common === null ? $this->above($root) : array_intersect($common, $this->above($root)));
        }
        $into = $common[0] ?? 0;
        if ($roots === [] || ($into !== 0 && $this->isLocked($into))) {
            return null;
        }
        $layers = array_count_values(array_map(fn (int $root): int => $this->layerOf[$root], $roots));
        $most = array_keys($layers, max($layers), true);
        $this->parents[$new] = $into;
        $this->layerOf[$new] = in_array($layer, $most, true) ? $layer : $most[0];
        $this->isGroup[$new] = true;
        $this->names[$new] = 'Group';
        foreach ($roots as $root) {
            $this->parents[$root] = $new;
        }

        return $this;
    }

    /** @param list<int> $numbers */
    public function ungroup(array $numbers): ?self
    {
        $going = $this->open(array_values(array_filter($numbers, fn (int $number): bool => $this->isGroup[$number])));
        if ($going === []) {
            return null;
        }
        $parents = $this->parents;
        foreach ($parents as $number => $parent) {
            while (in_array($parent, $going, true)) {
                $parent = $parents[$parent];
            }
            $this->parents[$number] = $parent;
        }
        $this->parents = array_diff_key($this->parents, array_fill_keys($going, true));

        return $this;
    }

    /** @param list<int> $numbers @param int $into 0 for the top */
    public function nest(array $numbers, int $into): ?self
    {
        $roots = $this->open($this->outermost($numbers));
        if ($roots === [] || ($into !== 0 && ($this->isLocked($into) || array_intersect([$into, ...$this->above($into)], $roots) !== []))) {
            return null;
        }
        foreach ($roots as $root) {
            $this->parents[$root] = $into;
        }

        return $this;
    }

    /**
     * @param list<int> $numbers
     * @param list<int> $order   all objects, as they stand in the scene: in this order copies are numbered
     * @param int       $new     number of the first copy
     */
    public function copy(array $numbers, int $times, array $order, int $new): ?self
    {
        $roots = $this->outermost($numbers);
        foreach ($roots as $root) {
            if ($this->parents[$root] !== 0 && $this->isLocked($this->parents[$root])) {
                return null;
            }
        }
        $all = array_values(array_intersect($order, $this->withHeld($roots)));
        for ($time = 0; $time < $times; $time++) {
            $copyOf = [];
            foreach ($all as $original) {
                $copyOf[$original] = $new++;
            }
            foreach ($copyOf as $original => $copy) {
                $parent = $this->parents[$original];
                $this->parents[$copy] = in_array($original, $roots, true) ? $parent : $copyOf[$parent];
                $this->isGroup[$copy] = $this->isGroup[$original];
                $this->names[$copy] = $this->names[$original];
                foreach (['layerOf', 'locks', 'fire'] as $what) {
                    if (isset($this->{$what}[$original])) {
                        $this->{$what}[$copy] = $this->{$what}[$original];
                    }
                }
                if (isset($this->outputs["O$original"])) {
                    $this->outputs["O$copy"] = $this->outputs["O$original"];
                }
                foreach ($this->tags as $tag => $objects) {
                    $this->tags[$tag] = in_array($original, $objects, true) ? [...$objects, $copy] : $objects;
                }
            }
        }

        return $this;
    }

    /** @param list<int> $numbers */
    public function delete(array $numbers): ?self
    {
        $all = $this->withHeld($numbers);
        $locked = array_values(array_filter($all, $this->isLocked(...)));
        $holding = $locked === [] ? [] : array_merge(...array_map($this->above(...), $locked));
        $going = array_diff($all, $locked, $holding);
        if ($going === []) {
            return null;
        }
        $this->parents = array_diff_key($this->parents, array_fill_keys($going, true));

        return $this;
    }

    /**
     * What a list of rules does, one object after the other.
     *
     * @param list<array{string, int, int, bool, bool}> $lines beginning of the name, layer, tag, whether that alone is meant and not
     *     what it holds, whether rules below take it as well
     */
    public function sort(array $lines): void
    {
        $sorted = $tagged = [];
        $is = fn (int $number, string $begins): bool => str_starts_with($this->names[$number], $begins);
        foreach ($this->open(array_keys($this->parents)) as $number) {
            foreach ($lines as [$begins, $layer, $tag, $only, $goesOn]) {
                $fits = array_filter(
                    $only ? [$number] : [$number, ...$this->above($number)],
                    static fn (int $at): bool => $is($at, $begins),
                );
                if ($fits === []) {
                    continue;
                }
                $sorted[$number] ??= $layer;
                $tagged[$tag][] = $number;
                if (! $goesOn) {
                    break;
                }
            }
        }
        foreach ($sorted as $number => $layer) {
            $this->layerOf[$number] = $layer;
        }
        foreach ($tagged as $tag => $numbers) {
            $this->tags[$tag] = array_unique([...$this->tags[$tag], ...$numbers]);
        }
    }

    /** Whether everything stands in something that is there, and nothing in itself. */
    private function isForest(): bool
    {
        foreach (array_keys($this->parents) as $number) {
            for ($at = $number, $steps = 0; $at !== 0; $at = $this->parents[$at]) {
                if (! isset($this->parents[$at]) || $steps++ > count($this->parents)) {
                    return false;
                }
            }
        }

        return true;
    }
}
