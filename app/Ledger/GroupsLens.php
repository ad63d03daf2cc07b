<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Group;
use App\Bench\Groups;
use App\Bench\Refused;
use VineShelf\Facts\Ordered;
use VineShelf\Folders\Folder;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;

/** Tags, sets, kinds, materials or sources; an unfolded one shows its objects, a folder what lies in it, a kind first its classes. */
final class GroupsLens implements Lens
{
    /** @var list<array{Group|RowList, int, int}> group and level with length 1, or objects and level with their number */
    private array $segments = [];

    private int $total = 0;

    /** @var array<string, Bits> by group key */
    private array $within = [];

    /** @var array<string, int> triangles by group key */
    private array $weights = [];

    /** @var list<RowList>|null */
    private ?array $firsts = null;

    private readonly Groups $groups;

    private readonly ShelvedRows $shelved;

    private readonly Costs $costs;

    private readonly Forecast $forecast;

    /**
     * @param array<string, true> $unfolded row keys
     * @param string              $named    part of the names of the rows to show, those above them included; "" for all
     */
    public function __construct(
        private readonly Bench $bench,
        private readonly string $what,
        private readonly array $unfolded,
        private readonly Ordered|Bands|null $order,
        private readonly ?Bits $found,
        private readonly string $sortBy = '',
        private readonly bool $down = false,
        private readonly string $named = '',
    ) {
        $this->groups = new Groups($bench);
        $this->shelved = new ShelvedRows($bench);
        $this->costs = new Costs($bench);
        $this->forecast = new Forecast($bench);
        foreach ($this->sorted($this->groups->ofLens($what)) as $group) {
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

    public function hits(): int
    {
        return $this->found?->count() ?? 0;
    }

    public function hit(int $index): ?int
    {
        foreach ($this->firsts() as $list) {
            if ($index < $list->count()) {
                return $list->slice($index, 1)[0] ?? null;
            }
            $index -= $list->count();
        }

        return null;
    }

    public function hitOf(int $row): ?int
    {
        $before = 0;
        foreach ($this->firsts() as $list) {
            $place = $list->position($row);
            if ($place !== null) {
                return $before + $place;
            }
            $before += $list->count();
        }

        return null;
    }

    /**
     * The hits of each unfolded row that stand in none above it, then those that stand nowhere: each is stepped to once.
     *
     * @return list<RowList>
     */
    private function firsts(): array
    {
        if ($this->firsts === null) {
            $left = $this->found ?? Bits::none($this->bench->scene()->count());
            $list = fn (Bits $rows): RowList => new RowList($rows->length, static fn (): Bits => $rows, $this->order);
            $this->firsts = [];
            foreach ($this->segments as [$what]) {
                if ($what instanceof RowList) {
                    $this->firsts[] = $list($what->rows()->and($left));
                    $left = $left->less($what->rows());
                }
            }
            $this->firsts[] = $list($left);
        }

        return $this->firsts;
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

    /** @return bool whether anything was laid */
    private function lay(Group $group, int $level, bool $isIn = false): bool
    {
        $count = $this->count($group);
        if ($count === 0 && $this->found !== null) {
            return false;
        }
        $isIn = $isIn || $this->isNamed($group);
        [$segments, $total] = [count($this->segments), $this->total];
        $this->add($group, $level, 1);
        $this->weights[$group->key] = $this->weight($group);
        $isOpen = isset($this->unfolded[$group->key]) || $this->found !== null;
        $shown = $isIn;
        if ($isOpen || ! $isIn) {
            foreach ($this->sorted($this->groups->inside($group)) as $inner) {
                $shown = $this->lay($inner, $level + 1, $isIn) || $shown;
            }
        }
        if (! $shown) {
            array_splice($this->segments, $segments);
            $this->total = $total;

            return false;
        }
        $rest = $isOpen && $isIn ? $this->groups->under($group) : null;
        $objects = $rest === null ? 0 : $this->count($rest);
        if ($rest !== null && $objects > 0) {
            $this->add(
                new RowList($this->bench->scene()->count(), fn (): Bits => $this->within($rest), $this->order, $objects),
                $level + 1,
                $objects,
            );
        }

        return true;
    }

    private function isNamed(Group $group): bool
    {
        return $this->named === '' || mb_stripos($group->name, $this->named) !== false;
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
    private function sorted(array $groups): array
    {
        $value = match ($this->sortBy) {
            'name' => static fn (Group $group): string => mb_strtolower($group->name),
            'count' => $this->count(...),
            'weigh', 'weight', 'triangles' => $this->weight(...),
            default => Costs::has($this->sortBy)
                ? fn (Group $group): int => $this->costs->value($this->sortBy, $this->within($group))
                : null,
        };
        if ($value !== null) {
            $by = [];
            foreach ($groups as $group) {
                $by[$group->key] = $value($group);
            }
            usort($groups, fn (Group $a, Group $b): int => $this->down ? $by[$b->key] <=> $by[$a->key] : $by[$a->key] <=> $by[$b->key]);
        }

        return $groups;
    }

    /**
     * The rung or lock that all objects of a group have; null where they differ. In a folder the first that differs settles it.
     *
     * @param string $of "rungs", "output" or "locks"
     */
    private function only(Group $group, string $of): ?int
    {
        if ($this->found !== null || ! ($group->of instanceof Folder)) {
            return $this->bench->only(fn (): Bits => $this->within($group), $of);
        }
        $all = null;
        foreach ($this->groups->inside($group) as $inner) {
            if ($inner->count === 0) {
                continue;
            }
            $step = $this->only($inner, $of);
            if ($step === null || ($all !== null && $step !== $all)) {
                return null;
            }
            $all = $step;
        }

        return $all;
    }

    private function pictures(Group $group, int $count): ?InPictures
    {
        if (! $this->bench->arrangement()->has('output')) {
            return null;
        }
        $all = $this->only($group, 'output');

        return new InPictures(
            $this->shelved->output($group),
            $all !== null && $count > 0 ? Rung::from($all) : $this->shelved->inPictures($group),
            $all === null && $count > 0,
            $this->shelved->outputNote($group),
        );
    }

    /** The row of a group by itself. */
    public function named(string $key): Row
    {
        return $this->row($this->groups->named($key) ?? throw new Refused('That is no longer there.', 'keys'), 1);
    }

    private function row(Group $group, int $level): Row
    {
        $count = $this->count($group);
        $allRung = $this->only($group, 'rungs');
        $allLock = $this->only($group, 'locks');
        $picked = $this->bench->pick()->count() === 0 ? 0 : $this->within($group)->and($this->bench->pickedBits())->count();
        $rung = $allRung !== null && $count > 0 ? Rung::from($allRung) : $this->shelved->inEffect($group);
        $lock = Lock::from($count > 0 ? $allLock ?? 0 : 0);
        [$ownLock, $shelfLock] = $group->of === null ? [$lock, $lock] : $this->shelved->locks($group);

        return new Row(
            $group->key,
            $level,
            $group->name === '' ? 'Unnamed '.$group->what : $group->name,
            $group->colour,
            $count,
            $this->weights[$group->key] ?? $this->weight($group),
            $group->of === null ? $rung : $this->shelved->own($group) ?? Rung::Full,
            $rung,
            $allRung === null && $count > 0,
            $group->of instanceof SelectionSet ? $lock : $ownLock,
            $group->of instanceof SelectionSet ? $lock : $shelfLock,
            $picked,
            $picked > 0 && $picked === $count,
            $count > 0 || $this->groups->inside($group) !== [],
            isset($this->unfolded[$group->key]) || $this->found !== null,
            $group->what,
            cells: $this->costs->cells(fn (): Bits => $this->within($group)) + $this->forecast->of(fn (): Bits => $this->within($group)),
            about: $this->shelved->about($group),
            pictures: $this->pictures($group, $count),
        );
    }
}
