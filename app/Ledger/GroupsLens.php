<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Group;
use App\Bench\Groups;
use VineShelf\Facts\Ordered;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;

/** Kinds, materials or sources; an unfolded one shows its objects, a kind first its classes. */
final class GroupsLens implements Lens
{
    /** @var list<array{Group|RowList, int, int}> group and level with length 1, or objects and level with their number */
    private array $segments = [];

    private int $total = 0;

    /** @var array<string, Bits> by group key */
    private array $within = [];

    /** @var array<string, int> triangles by group key */
    private array $weights = [];

    /**
     * @param array<string, true> $unfolded row keys
     */
    public function __construct(
        private readonly Bench $bench,
        private readonly string $what,
        private readonly array $unfolded,
        private readonly Ordered|Bands|null $order,
        private readonly ?Bits $found,
        string $sortBy = '',
        bool $down = false,
    ) {
        $groups = new Groups($bench);
        foreach ($this->sorted($groups->ofLens($what), $sortBy, $down) as $group) {
            $this->lay($group, 1);
        }
    }

    public function total(): int
    {
        return $this->total;
    }

    public function heaviest(): int
    {
        return max([1, ...array_values($this->weights)]);
    }

    public function rows(int $from, int $count): array
    {
        $rows = $objects = [];
        foreach ($this->window($from, $count) as $at => [$what, $level]) {
            if ($what instanceof Group) {
                $rows[$at] = $this->row($what, $level);
            } else {
                $objects[$at] = [$what, $level, false, false];
            }
        }
        foreach ((new ObjectRows($this->bench))->make(array_values($objects)) as $index => $row) {
            $rows[array_keys($objects)[$index]] = $row;
        }
        ksort($rows);

        return array_values($rows);
    }

    public function keys(int $from, int $count): array
    {
        return array_map(
            fn (array $entry): string => $entry[0] instanceof Group ? $entry[0]->key : 'O'.$this->bench->scene()->number($entry[0]),
            array_values($this->window($from, $count)),
        );
    }

    public function position(string $key): ?int
    {
        $at = 0;
        $row = $key[0] === 'O' ? $this->bench->scene()->row((int) substr($key, 1)) : 0;
        foreach ($this->segments as [$what, , $length]) {
            if ($what instanceof Group ? $what->key === $key : false) {
                return $at;
            }
            if ($what instanceof RowList && $row > 0) {
                $position = $what->position($row);
                if ($position !== null) {
                    return $at + $position;
                }
            }
            $at += $length;
        }

        return null;
    }

    /** @return array<int, array{Group|int, int}> group or scene row, and level, by place */
    private function window(int $from, int $count): array
    {
        $window = [];
        $at = 0;
        foreach ($this->segments as [$what, $level, $length]) {
            if ($at >= $from + $count) {
                break;
            }
            if ($what instanceof Group) {
                if ($at >= $from) {
                    $window[$at] = [$what, $level];
                }
            } elseif ($at + $length > $from) {
                $offset = max(0, $from - $at);
                foreach ($what->slice($offset, min($length, $from + $count - $at) - $offset) as $index => $row) {
                    $window[$at + $offset + $index] = [$row, $level];
                }
            }
            $at += $length;
        }

        return $window;
    }

    private function lay(Group $group, int $level): void
    {
        $count = $this->count($group);
        if ($count === 0 && $this->found !== null) {
            return;
        }
        $this->add($group, $level, 1);
        $this->weights[$group->key] = $this->weight($group);
        if (! isset($this->unfolded[$group->key]) && $this->found === null) {
            return;
        }
        $kind = $group->what === 'kind' ? Kind::from((int) substr($group->key, 1)) : null;
        $groups = new Groups($this->bench);
        foreach ($kind === null ? [] : $groups->classes($kind) as $class) {
            $this->lay($class, $level + 1);
        }
        $rest = $kind === null ? $group : $groups->withoutClass($kind);
        $objects = $this->count($rest);
        if ($objects > 0) {
            $this->add(
                new RowList($this->bench->scene()->count(), fn (): Bits => $this->within($rest), $this->order, $objects),
                $level + 1,
                $objects,
            );
        }
    }

    private function within(Group $group): Bits
    {
        return $this->found === null ? $group->rows() : ($this->within[$group->key] ??= $group->rows()->and($this->found));
    }

    private function count(Group $group): int
    {
        return $this->found === null ? $group->count : $this->within($group)->count();
    }

    private function weight(Group $group): int
    {
        if ($this->found === null) {
            return $group->triangles;
        }

        return $this->bench->scene()->trianglesOf($this->within($group));
    }

    private function add(Group|RowList $what, int $level, int $length): void
    {
        $this->segments[] = [$what, $level, $length];
        $this->total += $length;
    }

    /**
     * @param list<Group> $groups
     *
     * @return list<Group>
     */
    private function sorted(array $groups, string $by, bool $down): array
    {
        $value = match ($by) {
            'name' => static fn (Group $group): string => mb_strtolower($group->name),
            'count' => $this->count(...),
            'weigh', 'weight', 'triangles' => $this->weight(...),
            default => null,
        };
        if ($value !== null) {
            usort($groups, static fn (Group $a, Group $b): int => $down ? $value($b) <=> $value($a) : $value($a) <=> $value($b));
        }

        return $groups;
    }

    private function row(Group $group, int $level): Row
    {
        $count = $this->count($group);
        $rungs = $this->bench->spread(fn (): Bits => $this->within($group), $count, 'rungs');
        $locks = $this->bench->spread(fn (): Bits => $this->within($group), $count, 'locks');
        $picked = $this->bench->pick()->count() === 0 ? 0 : $this->within($group)->and($this->bench->pickedBits())->count();
        $rung = count($rungs) === 1 ? Rung::from((int) array_key_first($rungs)) : Rung::Full;
        $lock = Lock::from(count($locks) === 1 ? (int) array_key_first($locks) : 0);

        return new Row(
            $group->key,
            $level,
            $group->name === '' ? 'Unnamed '.$group->what : $group->name,
            $group->colour,
            $count,
            $this->weights[$group->key] ?? $this->weight($group),
            $rung,
            $rung,
            count($rungs) > 1,
            $lock,
            $lock,
            $picked,
            $picked > 0 && $picked === $count,
            true,
            isset($this->unfolded[$group->key]) || $this->found !== null,
            $group->what,
        );
    }
}
