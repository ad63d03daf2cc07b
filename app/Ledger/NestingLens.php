<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Workbench\Bench;
use VineShelf\Rules\Relatives;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/**
 * Objects as the source nests them. What is on show is kept as ranges of rows: everything, less what is folded away. That costs
 * what the groups cost, not what the objects cost.
 */
final class NestingLens implements Lens
{
    /** @var list<array{int, int, int}> first and last scene row on show, and where the first stands, counted from 0 */
    private array $shown = [];

    private int $total = 0;

    /** @var list<int>|null scene rows on show, when they are sorted */
    private ?array $flat = null;

    /** @var array<int, true> object numbers */
    private readonly array $unfolded;

    /**
     * @param array<int, true> $unfolded object numbers
     * @param string|null      $order    packed rows of the scene, sorted: each row's own children come in that order
     * @param Bits|null        $found    scene rows to narrow down to, null for all
     */
    public function __construct(private readonly Bench $bench, array $unfolded, ?string $order = null, private readonly ?Bits $found = null)
    {
        $this->unfolded = $unfolded;
        if ($order !== null) {
            $this->showSorted($order);
        } elseif ($found === null) {
            $this->showAll();
        } else {
            foreach ($this->withAbove($found)->ranges() as [$first, $last]) {
                $this->show($first, $last);
            }
        }
    }

    public function total(): int
    {
        return $this->total;
    }

    public function rows(int $from, int $count): array
    {
        $scene = $this->bench->scene();
        $wanted = [];
        foreach ($this->window($from, $count) as $row) {
            $wanted[] = [$row, $scene->depth($row), $scene->end($row) > $row, $this->found !== null || isset($this->unfolded[$scene->number($row)])];
        }

        return (new ObjectRows($this->bench))->make($wanted);
    }

    public function keys(int $from, int $count): array
    {
        return array_map(fn (int $row): string => 'O'.$this->bench->scene()->number($row), $this->window($from, $count));
    }

    public function position(string $key): ?int
    {
        $row = $key[0] === 'O' ? $this->bench->scene()->row((int) substr($key, 1)) : 0;
        if ($this->flat !== null) {
            $at = array_search($row, $this->flat, true);

            return $at === false ? null : $at;
        }
        foreach ($this->shown as [$first, $last, $at]) {
            if ($row >= $first && $row <= $last) {
                return $at + $row - $first;
            }
        }

        return null;
    }

    /** @return list<int> scene rows */
    private function window(int $from, int $count): array
    {
        if ($this->flat !== null) {
            return array_slice($this->flat, $from, $count);
        }
        $rows = [];
        foreach ($this->shown as [$first, $last, $at]) {
            if ($at >= $from + $count) {
                break;
            }
            for ($row = $first + max(0, $from - $at); $row <= $last && $at + $row - $first < $from + $count; $row++) {
                $rows[] = $row;
            }
        }

        return $rows;
    }

    private function showAll(): void
    {
        $scene = $this->bench->scene();
        $next = 1;
        foreach ($scene->groups() as $group) {
            if ($group >= $next && ! isset($this->unfolded[$scene->number($group)])) {
                $this->show($next, $group);
                $next = $scene->end($group) + 1;
            }
        }
        $this->show($next, $scene->count());
    }

    private function withAbove(Bits $found): Bits
    {
        return $found->or(Relatives::holding($this->bench->scene(), $found));
    }

    private function showSorted(string $order): void
    {
        $scene = $this->bench->scene();
        $parents = $scene->column('parent');
        $shown = $this->found === null ? null : $this->withAbove($this->found)->bytes;
        $open = [0 => true];
        foreach ($scene->groups() as $group) {
            if ($shown !== null || isset($this->unfolded[$scene->number($group)])) {
                $open[$group] = true;
            }
        }
        $children = [];
        foreach (Packed::uint32($order, 0, intdiv(strlen($order), 4)) as $row) {
            if ($shown !== null && (ord($shown[$row >> 3]) >> ($row & 7) & 1) === 0) {
                continue;
            }
            $parent = Packed::uint32At($parents, $row);
            if (isset($open[$parent])) {
                $children[$parent][] = $row;
            }
        }
        $this->flat = [];
        $stack = array_reverse($children[0] ?? []);
        while (($row = array_pop($stack)) !== null) {
            $this->flat[] = $row;
            if (isset($children[$row])) {
                array_push($stack, ...array_reverse($children[$row]));
            }
        }
        $this->total = count($this->flat);
    }

    private function show(int $first, int $last): void
    {
        if ($last >= $first) {
            $this->shown[] = [$first, $last, $this->total];
            $this->total += $last - $first + 1;
        }
    }
}
