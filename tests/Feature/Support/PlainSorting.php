<?php

declare(strict_types=1);

namespace Tests\Feature\Support;

/** How a project is sorted, in plain arrays, and what each change must make of it, in the slow and obvious way. */
final class PlainSorting
{
    /** @var array<int, int> by object number, as are the following: the group that it stands in, 0 for none */
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
        $fire = $this->fire;
        $locked = array_values(array_filter(array_keys($this->parents), $this->isLocked(...)));
        ksort($fire);
        sort($locked);
        $layers = $this->layerOf;
        ksort($layers);

        $outputs = $this->outputs;
        ksort($outputs);

        return [
            'layers' => $layers,
            'tags' => $sorted($this->tags),
            'sets' => $sorted($this->sets),
            'fire' => $fire,
            'locked' => $locked,
            'outputs' => $outputs,
        ];
    }
}
