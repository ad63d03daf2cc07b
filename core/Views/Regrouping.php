<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;

/**
 * What a change of the nesting means to views. A rung that a view has on a group that objects leave goes on holding them, as their own, and
 * they go on being shown alone if they were; a rung on a group that they come to holds them from then on, and what is shown alone shows
 * what comes to it.
 */
final readonly class Regrouping
{
    /** @var list<array{list<int>, list<int>, list<int>}> groups that hold them before, and after, nearest first, by number; their rows */
    private array $moves;

    /**
     * @param Scene           $before as it was
     * @param array<int, int> $to     number of what an object stands in now, 0 at the top, by its number
     * @param array<int, int> $back   the same of objects that were not there before
     */
    public function __construct(private Scene $before, private array $to, array $back)
    {
        $above = [];
        $after = function (int $number) use (&$above, $to, $back): array {
            if (! isset($above[$number])) {
                $chain = [];
                for ($at = $number; $at !== 0 && ! isset($chain[$at]); $at = $to[$at] ?? ($back[$at] ?? $this->parent($at))) {
                    $chain[$at] = $at;
                }
                $above[$number] = array_values($chain);
            }

            return $above[$number];
        };
        $moves = [];
        foreach ($to as $number => $into) {
            $row = $this->before->row($number);
            $from = $this->parent($number);
            if ($row !== 0 && $from !== $into) {
                $moves["$from $into"] ??= [$this->chain($from), $after($into), []];
                $moves["$from $into"][2][] = $row;
            }
        }
        $this->moves = array_values($moves);
    }

    public function isEmpty(): bool
    {
        return $this->moves === [];
    }

    /** What a view keeps so that what left groups is held as it was. */
    public function held(Settings $settings): Settings
    {
        $set = [];
        foreach ($this->moves as [$from, $into, $rows]) {
            $was = self::heldAt($settings, $from);
            if ($was < self::heldAt($settings, $into)) {
                $set[$was] = [...$set[$was] ?? [], ...$this->toHold($settings, $rows, $was)];
            }
        }
        // The lowest comes last: it wins.
        krsort($set);
        foreach ($set as $rung => $numbers) {
            sort($numbers);
            if ($numbers !== []) {
                $settings = $settings->withObjects(Bits::ofRows($numbers[count($numbers) - 1], $numbers), Rung::from($rung));
            }
        }

        return $settings;
    }

    /** What a view shows alone so that what left a group that is shown alone still is. */
    public function alone(Isolation $isolation): Isolation
    {
        return $isolation->reaching($this->following(...));
    }

    /** Objects, meant with what they hold, so that what left one of them is still meant. */
    public function following(Pick $objects): Pick
    {
        $left = [];
        foreach ($this->moves as [$from, $into, $rows]) {
            if (self::isAmong($objects, $from) && ! self::isAmong($objects, $into)) {
                array_push($left, ...array_map($this->before->number(...), $rows));
            }
        }

        return $left === [] ? $objects : $objects->with($left);
    }

    /** Whether something comes to what is meant with what it holds, and was not meant before. */
    public function comesTo(Pick $objects): bool
    {
        $meant = null;
        foreach ($this->moves as [, $into, $rows]) {
            if (self::isAmong($objects, $into)) {
                sort($rows);
                $meant ??= $objects->withHeld($this->before);
                $moved = Relatives::within($this->before, Bits::ofRows($this->before->count(), $rows));
                if (! $moved->without($meant)->isEmpty()) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @param list<int> $groups numbers */
    private static function isAmong(Pick $objects, array $groups): bool
    {
        return array_filter($groups, $objects->has(...)) !== [];
    }

    /**
     * What a view shows differently all the same.
     *
     * @param Settings  $settings  what it kept before
     * @param Isolation $isolation what it showed alone before
     * @param Levels    $shown     rungs in it before
     *
     * @return Bits rows
     */
    public function differing(Settings $settings, Isolation $isolation, Levels $shown): Bits
    {
        $differing = Bits::none($this->before->count());
        $alone = $isolation->isOn() ? $isolation->rows($this->before) : $differing;
        foreach ($this->moves as [, $into, $rows]) {
            $held = self::heldAt($settings, $into);
            $comesAlone = $isolation->reachesInto($into);
            if ($held === Rung::Full->value && ! $comesAlone) {
                continue;
            }
            sort($rows);
            $moved = Relatives::within($this->before, Bits::ofRows($this->before->count(), $rows))->without($alone);
            $higher = $shown->atLeast($comesAlone ? Rung::Full->value : $held + 1);
            $differing = $differing->or($comesAlone ? $moved->without($higher) : $moved->and($higher));
        }

        return $differing;
    }

    /**
     * Numbers of what a rung has to be set on, so that all of some rows is held at it. What is lower without what it holds stays so.
     *
     * @param list<int> $rows
     *
     * @return list<int>
     */
    private function toHold(Settings $settings, array $rows, int $rung): array
    {
        $numbers = [];
        while (($row = array_pop($rows)) !== null) {
            $number = $this->before->number($row);
            if (($settings->reaching($number)->value ?? Rung::Full->value) <= $rung) {
                continue;
            }
            if (($settings->object($number)->value ?? Rung::Full->value) >= $rung) {
                $numbers[] = $number;

                continue;
            }
            foreach ($this->before->children($row) as $child) {
                if (! isset($this->to[$this->before->number($child)])) {
                    $rows[] = $child;
                }
            }
        }

        return $numbers;
    }

    /**
     * The lowest rung on any of some groups.
     *
     * @param list<int> $groups numbers
     */
    private static function heldAt(Settings $settings, array $groups): int
    {
        $held = Rung::Full->value;
        foreach ($settings->objects === [] ? [] : $groups as $number) {
            $held = min($held, $settings->reaching($number)->value ?? $held);
        }

        return $held;
    }

    /** @return list<int> a group and those that it stands in, by number, as it was */
    private function chain(int $number): array
    {
        $row = $this->before->row($number);

        return $row === 0 ? [] : array_map($this->before->number(...), [$row, ...$this->before->ancestors($row)]);
    }

    private function parent(int $number): int
    {
        $row = $this->before->row($number);
        $above = $row === 0 ? 0 : $this->before->parent($row);

        return $above === 0 ? 0 : $this->before->number($above);
    }
}
