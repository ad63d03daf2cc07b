<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Workbench\Bench;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;

/** The kinds, classes, materials and sources of a project, and the objects that belong to each. */
final readonly class Groups
{
    public function __construct(private Bench $bench) {}

    /** @return list<Group> */
    public function kinds(): array
    {
        $groups = [];
        foreach (Kind::cases() as $kind) {
            if ($this->bench->facts()->ranked('kind')->count($kind->value) > 0) {
                $groups[] = $this->kind($kind);
            }
        }

        return $groups;
    }

    /** @return list<Group> the classes that objects of a kind have; none when they have no class at all */
    public function classes(Kind $kind): array
    {
        $ofKind = $this->bench->facts()->ranked('kind')->in([$kind->value]);
        $groups = [];
        foreach ($this->bench->facts()->words('class.words') as $code => $word) {
            if ($code > 0) {
                $rows = $this->bench->facts()->ranked('class')->in([$code])->and($ofKind);
                if (! $rows->isEmpty()) {
                    $groups[] = new Group("K$kind->value.$code", (string) $word, 'class', '', static fn (): Bits => $rows);
                }
            }
        }
        usort($groups, static fn (Group $a, Group $b): int => strnatcasecmp($a->name, $b->name));

        return $groups;
    }

    /** @return list<Group> */
    public function materials(): array
    {
        $facts = $this->bench->facts();
        $codes = [];
        foreach ($facts->surfaceLists() as $code => $list) {
            foreach ($list === [] ? [0] : $list as $material) {
                $codes[$material][] = $code;
            }
        }
        $groups = [];
        foreach ($codes as $material => $some) {
            $draws = $material > 0 || $facts->ranked('surfaces')->count(0) > 0;
            [$name, , $colour] = $facts->materials()[$material] ?? ['', false, '#b9b3a2'];
            if ($material > 0 && $draws) {
                $groups[] = new Group("M$material", $name, 'material', $colour, static fn (): Bits => $facts->ranked('surfaces')->in($some));
            }
        }
        usort($groups, static fn (Group $a, Group $b): int => strnatcasecmp($a->name, $b->name));
        $bare = $facts->ranked('instances')->between(1, INF)->without($facts->bits('material'));
        if (! $bare->isEmpty()) {
            $groups[] = new Group('M0', 'No material', 'material', '#b9b3a2', static fn (): Bits => $bare);
        }

        return $groups;
    }

    /** @return list<Group> */
    public function sources(): array
    {
        $groups = [];
        foreach ($this->bench->facts()->sourceNames() as $number => $name) {
            $groups[] = new Group("S$number", $name, 'source', '', fn (): Bits => Bits::ofRuns($this->bench->facts()->sources(), [$number => true]));
        }

        return $groups;
    }

    /** The group with the row key; null when there is none. */
    public function named(string $key): ?Group
    {
        if (preg_match('~^([KMS])(\d{1,9})(\.\d{1,9})?$~', $key, $found) !== 1) {
            return null;
        }
        $kind = $found[1] === 'K' ? Kind::tryFrom((int) $found[2]) : null;
        $groups = match (true) {
            $found[1] === 'M' => $this->materials(),
            $found[1] === 'S' => $this->sources(),
            isset($found[3]) => $kind === null ? [] : $this->classes($kind),
            default => $kind === null ? [] : [$this->kind($kind)],
        };
        foreach ($groups as $group) {
            if ($group->key === $key) {
                return $group;
            }
        }

        return null;
    }

    private function kind(Kind $kind): Group
    {
        return new Group("K$kind->value", ucfirst($kind->plural()), 'kind', '', fn (): Bits => $this->bench->facts()->ranked('kind')->in([$kind->value]), true);
    }
}
