<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Facts\Tally;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;

/** The kinds, classes, materials and sources of a project, and the objects that belong to each; tags and sets beside them. */
final readonly class Groups
{
    public function __construct(private Bench $bench) {}

    /** @return list<Group> the topmost rows of a lens, as far as they are groups */
    public function ofLens(string $lens): array
    {
        return match ($lens) {
            'kinds' => $this->kinds(),
            'materials' => $this->materials(),
            'sources' => $this->sources(),
            'tags' => (new ShelvedGroups($this->bench))->inside(Holds::Tags, 0),
            'sets' => (new ShelvedGroups($this->bench))->inside(Holds::Sets, 0),
            default => [],
        };
    }

    /**
     * The rows that a group holds beside objects.
     *
     * @return list<Group>
     */
    public function inside(Group $group): array
    {
        return match (true) {
            $group->what === 'kind' => $this->classes(Kind::from((int) substr($group->key, 1))),
            $group->of instanceof Folder => (new ShelvedGroups($this->bench))->inside($group->of->holds, $group->of->number),
            default => [],
        };
    }

    /** The objects that stand directly under a group; null where there are never any. */
    public function under(Group $group): ?Group
    {
        return match (true) {
            $group->what === 'kind' => $this->withoutClass(Kind::from((int) substr($group->key, 1))),
            $group->of instanceof Folder => null,
            default => $group,
        };
    }

    /** @return list<Group> every group of a lens, at any depth */
    public function allOf(string $lens): array
    {
        $all = $this->ofLens($lens);
        for ($at = 0; $at < count($all); $at++) {
            foreach ($this->inside($all[$at]) as $inner) {
                $all[] = $inner;
            }
        }

        return $all;
    }

    /** @return list<Group> */
    public function kinds(): array
    {
        $tally = $this->bench->facts()->tally('kind');
        $groups = [];
        foreach (Kind::cases() as $kind) {
            if (isset($tally->rows[$kind->value])) {
                $groups[] = new Group(
                    "K$kind->value",
                    ucfirst($kind->plural()),
                    'kind',
                    '',
                    $tally->rows[$kind->value],
                    $tally->triangles[$kind->value],
                    fn (): Bits => $this->bench
                        ->facts()
                        ->ranked('kind')
                        ->in([$kind->value]),
                );
            }
        }

        return $groups;
    }

    /** @return list<Group> the classes that objects of a kind have; none when they have no class at all */
    public function classes(Kind $kind): array
    {
        $facts = $this->bench->facts();
        $tally = $facts->tally('kindclass');
        $groups = [];
        foreach ($tally->rows as $code => $rows) {
            $class = $code >> 4;
            if ($class > 0 && $code === Tally::ofKind($kind->value, $class)) {
                $groups[] = new Group(
                    "K$kind->value.$class",
                    (string) $facts->words('class.words')[$class],
                    'class',
                    '',
                    $rows,
                    $tally->triangles[$code],
                    static fn (): Bits => $facts
                        ->ranked('class')
                        ->in([$class])
                        ->and($facts->ranked('kind')->in([$kind->value])),
                );
            }
        }
        usort($groups, static fn (Group $a, Group $b): int => strnatcasecmp($a->name, $b->name));

        return $groups;
    }

    /** What of a kind has no class. */
    public function withoutClass(Kind $kind): Group
    {
        $facts = $this->bench->facts();
        $tally = $facts->tally('kindclass');
        $code = Tally::ofKind($kind->value, 0);

        return new Group(
            "K$kind->value.0",
            '',
            'class',
            '',
            $tally->rows[$code] ?? 0,
            $tally->triangles[$code] ?? 0,
            static fn (): Bits => $facts
                ->ranked('kind')
                ->in([$kind->value])
                ->without($facts->ranked('class')->present()),
        );
    }

    /** @return list<Group> */
    public function materials(): array
    {
        $facts = $this->bench->facts();
        $tally = $facts->tally('surfaces');
        $codes = [];
        foreach ($facts->surfaceLists() as $code => $list) {
            foreach ($list as $material) {
                $codes[$material][] = $code;
            }
        }
        $sum = static fn (array $of, array $some): int => array_sum(array_map(static fn (int $code): int => $of[$code] ?? 0, $some));
        $groups = [];
        foreach ($codes as $material => $some) {
            [$name, , $colour] = $facts->materials()[$material] ?? ['', false, '#b9b3a2'];
            $groups[] = new Group(
                "M$material",
                $name,
                'material',
                $colour,
                $sum($tally->rows, $some),
                $sum($tally->triangles, $some),
                static fn (): Bits => $facts->ranked('surfaces')->in($some),
            );
        }
        usort($groups, static fn (Group $a, Group $b): int => strnatcasecmp($a->name, $b->name));
        $bare = $facts
            ->ranked('instances')
            ->between(1, INF)
            ->without($facts->bits('material'));
        if (! $bare->isEmpty()) {
            $groups[] = new Group('M0', 'No material', 'material', '#b9b3a2', $bare->count(), 0, static fn (): Bits => $bare);
        }

        return $groups;
    }

    /** @return list<Group> */
    public function sources(): array
    {
        $tally = $this->bench->facts()->tally('source');
        $groups = [];
        foreach ($this->bench->facts()->sourceNames() as $number => $name) {
            $groups[] = new Group(
                "S$number",
                $name,
                'source',
                '',
                $tally->rows[$number] ?? 0,
                $tally->triangles[$number] ?? 0,
                fn (): Bits => $this->bench
                    ->facts()
                    ->sources()
                    ->rowsOf([$number => true]),
            );
        }

        return $groups;
    }

    /** The group with the row key; null when there is none. */
    public function named(string $key): ?Group
    {
        return $this->allNamed([$key])[0] ?? null;
    }

    /**
     * The groups with the row keys, as far as there are any.
     *
     * @param list<string> $keys
     *
     * @return list<Group>
     */
    public function allNamed(array $keys): array
    {
        /** @var array<string, array<string, Group>> $known by what they are found in, by key */
        $known = [];
        $groups = [];
        foreach (array_unique($keys) as $key) {
            if (preg_match('~^([KMSTFE])(\d{1,9})(\.\d{1,9})?$~D', $key, $found) !== 1) {
                continue;
            }
            if (str_contains('TFE', $found[1])) {
                $groups = [...$groups, ...array_filter([($shelved ??= new ShelvedGroups($this->bench))->named($key)])];

                continue;
            }
            $kind = $found[1] === 'K' ? Kind::tryFrom((int) $found[2]) : null;
            $in = isset($found[3]) ? "K$found[2]." : $found[1];
            $known[$in] ??= self::byKey(
                match (true) {
                    $found[1] === 'M' => $this->materials(),
                    $found[1] === 'S' => $this->sources(),
                    ! isset($found[3]) => $this->kinds(),
                    $kind === null => [],
                    default => [...$this->classes($kind), $this->withoutClass($kind)],
                },
            );
            if (isset($known[$in][$key])) {
                $groups[] = $known[$in][$key];
            }
        }

        return $groups;
    }

    /**
     * @param list<Group> $groups
     *
     * @return array<string, Group>
     */
    private static function byKey(array $groups): array
    {
        return array_combine(array_map(static fn (Group $group): string => $group->key, $groups), $groups);
    }
}
