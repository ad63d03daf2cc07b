<?php

declare(strict_types=1);

namespace Tests\Feature\Support;

/** How a project is sorted, in plain arrays, and what each change must make of it, in the slow and obvious way. */
final class PlainSorting
{
    use PlainNesting;

    /** @var array<int, int> by object number, as are the following: the group that it stands in, 0 for none; only what is there */
    public array $parents = [];

    /** @var array<int, int> */
    public array $layerOf = [];

    /** @var array<int, int> own lock */
    public array $locks = [];

    /** @var array<int, string> value of its property "fire" */
    public array $fire = [];

    /** @var array<int, list<int>> objects by tag */
    public array $tags = [];

    /** @var array<int, list<int>> objects by fixed set */
    public array $sets = [];

    /** @var array<int, int> own lock by tag */
    public array $tagLocks = [];

    /** @var array<int, int> own lock by layer; the layers of this project are not nested */
    public array $layerLocks = [];

    /** @var array<string, int> what pictures are to show, by "O7", "L2" or "T1" */
    public array $outputs = [];

    /** @param list<int> $numbers of objects @param list<string> $keys of layers and tags */
    public function output(array $numbers, array $keys, ?int $value): void
    {
        foreach ([...$keys, ...array_map(static fn (int $number): string => "O$number", $this->open($numbers))] as $key) {
            if ($value === null) {
                unset($this->outputs[$key]);
            } else {
                $this->outputs[$key] = $value;
            }
        }
    }

    public function isLocked(int $number): bool
    {
        $isLocked = ($this->layerLocks[$this->layerOf[$number]] ?? 0) === 2;
        foreach ($this->tags as $tag => $objects) {
            $isLocked = $isLocked || (in_array($number, $objects, true) && ($this->tagLocks[$tag] ?? 0) === 2);
        }
        for ($at = $number; $at !== 0; $at = $this->parents[$at]) {
            $isLocked = $isLocked || ($this->locks[$at] ?? 0) === 2;
        }

        return $isLocked;
    }

    /**
     * @param list<int> $numbers
     *
     * @return list<int> the objects and what they hold
     */
    public function withHeld(array $numbers): array
    {
        $found = [];
        foreach (array_keys($this->parents) as $number) {
            for ($at = $number; $at !== 0; $at = $this->parents[$at]) {
                if (in_array($at, $numbers, true)) {
                    $found[] = $number;
                    break;
                }
            }
        }

        return $found;
    }

    /**
     * @param list<int> $numbers
     *
     * @return list<int> those that may be changed
     */
    public function open(array $numbers): array
    {
        return array_values(array_filter($numbers, fn (int $number): bool => ! $this->isLocked($number)));
    }

    /** @param list<int> $numbers */
    public function file(array $numbers, int $layer): void
    {
        foreach ($this->open($this->withHeld($numbers)) as $number) {
            $this->layerOf[$number] = $layer;
        }
    }

    /** @param list<int> $numbers @param bool|null $on null: off where all have it */
    public function tag(array $numbers, int $tag, ?bool $on, bool $withHeld): void
    {
        $open = $this->open($withHeld ? $this->withHeld($numbers) : $numbers);
        $on ??= array_diff($open, $this->tags[$tag]) !== [] || $open === [];
        $this->tags[$tag] = $on ? array_unique([...$this->tags[$tag], ...$open]) : array_diff($this->tags[$tag], $open);
    }

    /** @param list<int> $numbers */
    public function member(array $numbers, int $tag, int $set, bool $on): void
    {
        $all = $this->withHeld($numbers);
        $open = $this->open($all);
        // Being in a set changes nothing about an object.
        $this->tags[$tag] = $on ? array_unique([...$this->tags[$tag], ...$open]) : array_diff($this->tags[$tag], $open);
        $this->sets[$set] = $on ? array_unique([...$this->sets[$set], ...$all]) : array_diff($this->sets[$set], $all);
    }

    /** @param list<int> $numbers */
    public function fire(array $numbers, ?string $value): void
    {
        foreach ($this->open($numbers) as $number) {
            if ($value === null) {
                unset($this->fire[$number]);
            } else {
                $this->fire[$number] = $value;
            }
        }
    }

    /** @return array<string, mixed> every single thing that can change, by what it is */
    public function cells(): array
    {
        $cells = [];
        foreach (['parents', 'layerOf', 'locks', 'fire', 'tagLocks', 'layerLocks', 'outputs'] as $what) {
            foreach ($this->{$what} as $of => $value) {
                // An open lock is none.
                $cells["$what $of"] = $value === 0 && str_ends_with(strtolower($what), 'locks') ? null : $value;
            }
        }
        foreach (['tags' => $this->tags, 'sets' => $this->sets] as $what => $lists) {
            foreach ($lists as $of => $objects) {
                $cells["$what $of"] = true;
                foreach ($objects as $object) {
                    $cells["$what $of has $object"] = true;
                }
            }
        }

        return array_filter($cells, static fn (mixed $value): bool => $value !== null);
    }

    /**
     * What differs between two states.
     *
     * @return array<string, array{mixed, mixed}> before and after, null for nothing
     */
    public static function difference(self $before, self $after): array
    {
        [$old, $new] = [$before->cells(), $after->cells()];
        $differs = [];
        foreach ($old + $new as $what => $_) {
            if (($old[$what] ?? null) !== ($new[$what] ?? null)) {
                $differs[$what] = [$old[$what] ?? null, $new[$what] ?? null];
            }
        }

        return $differs;
    }

    /**
     * Puts back what a change has changed, if all of it is still as it left it.
     *
     * @param array<string, array{mixed, mixed}> $difference
     * @param bool                               $undo       whether it is taken back; otherwise it is done again
     */
    public function turn(array $difference, bool $undo): bool
    {
        $now = $this->cells();
        foreach ($difference as $what => $values) {
            if (($now[$what] ?? null) !== $values[$undo ? 1 : 0]) {
                return false;
            }
        }
        // What is in something goes before that does.
        uksort($difference, static fn (string $a, string $b): int => str_contains($b, ' has ') <=> str_contains($a, ' has '));
        foreach ($difference as $what => $values) {
            $this->put($what, $values[$undo ? 0 : 1]);
        }

        return $this->isForest();
    }

    private function put(string $what, mixed $value): void
    {
        $words = explode(' ', $what);
        [$list, $of] = [$words[0], $words[1]];
        if (isset($words[3])) {
            $others = array_diff($this->{$list}[$of] ?? [], [(int) $words[3]]);
            $this->{$list}[$of] = $value === null ? $others : [...$others, (int) $words[3]];
        } elseif ($value === null) {
            unset($this->{$list}[$of]);
        } elseif ($list === 'tags' || $list === 'sets') {
            $this->{$list}[$of] ??= [];
        } else {
            $this->{$list}[$of] = $value;
        }
    }

    /** @return array<string, mixed> everything, in an order that does not depend on how it came about */
    public function state(): array
    {
        $sorted = static function (array $lists): array {
            ksort($lists);

            return array_map(static function (array $list): array {
                sort($list);

                return $list;
            }, $lists);
        };
        $there = fn (array $lists): array => array_map(
            fn (array $objects): array => array_values(array_filter($objects, fn (int $object): bool => isset($this->parents[$object]))),
            $lists,
        );
        $parents = $this->parents;
        $fire = array_intersect_key($this->fire, $parents);
        $locked = array_values(array_filter(array_keys($this->parents), $this->isLocked(...)));
        ksort($fire);
        sort($locked);
        $layers = array_intersect_key($this->layerOf, $parents);
        $outputs = array_filter(
            $this->outputs,
            static fn (string $key): bool => $key[0] !== 'O' || isset($parents[(int) substr($key, 1)]),
            ARRAY_FILTER_USE_KEY,
        );
        ksort($layers);
        ksort($outputs);
        ksort($parents);

        return [
            'parents' => $parents,
            'layers' => $layers,
            'tags' => $sorted($there($this->tags)),
            'sets' => $sorted($there($this->sets)),
            'fire' => $fire,
            'locked' => $locked,
            'outputs' => $outputs,
        ];
    }
}
