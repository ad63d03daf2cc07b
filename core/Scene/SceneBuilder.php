<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Numbers a forest depth-first and writes the packed columns of {@see Scene}. */
final class SceneBuilder
{
    /**
     * @param array<int, int> $parents   parent's number by object number, 0 for a root, in the order of siblings
     * @param array<int, int> $layers    layer number by object number
     * @param array<int, int> $kinds     kind by object number
     * @param array<int, int> $locks     own lock by object number, only where it is not Open
     * @param array<int, int> $triangles drawn triangles by object number, only where there are any
     *
     * @return array<string, string> packed column by name
     */
    public static function columns(array $parents, array $layers, array $kinds, array $locks, array $triangles): array
    {
        [$order, $end] = self::depthFirst($parents);
        $rows = $order === [] ? [] : array_fill(0, max($order) + 1, 0);
        foreach ($order as $index => $number) {
            $rows[$number] = $index + 1;
        }
        $parent = $sums = $kind = [0];
        $layerOf = $lockOf = [];
        $sum = 0;
        foreach ($order as $number) {
            $above = $parents[$number];
            $parent[] = $above === 0 ? 0 : $rows[$above];
            $kind[] = $kinds[$number];
            $layerOf[] = $layers[$number];
            $lockOf[] = $locks[$number] ?? 0;
            $sums[] = $sum += $triangles[$number] ?? 0;
        }

        $groups = [];
        foreach ($end as $row => $last) {
            if ($last > $row && $row > 0) {
                $groups[] = $row;
            }
        }

        return [
            'groups' => $groups === [] ? '' : pack('V*', ...$groups),
            'no' => pack('V*', 0, ...$order),
            'parent' => pack('V*', ...$parent),
            'end' => pack('V*', ...$end),
            'kind' => pack('C*', ...$kind),
            'triangles' => pack('P*', ...$sums),
            'layer' => Coded::fromValues($layerOf)->pack(),
            'lock' => Coded::fromValues($lockOf)->pack(),
            'rows' => $rows === [] ? pack('V', 0) : pack('V*', ...$rows),
            'stretches' => self::stretches($order),
        ];
    }

    /** @param list<int> $order object numbers by row, the first row first */
    private static function stretches(array $order): string
    {
        $packed = '';
        $first = 0;
        foreach ($order as $index => $number) {
            if (($order[$index + 1] ?? 0) !== $number + 1) {
                $packed .= pack('VVV', $first + 1, $order[$first], $index - $first + 1);
                $first = $index + 1;
            }
        }

        return $packed;
    }

    /**
     * @param array<int, int> $parents
     *
     * @return array{list<int>, list<int>} numbers in depth-first order, and by row (0 unused) the last row of the subtree
     */
    private static function depthFirst(array $parents): array
    {
        $firstChild = $next = $lastChild = [];
        foreach ($parents as $number => $parent) {
            if (isset($lastChild[$parent])) {
                $next[$lastChild[$parent]] = $number;
            } else {
                $firstChild[$parent] = $number;
            }
            $lastChild[$parent] = $number;
        }
        $order = [];
        $end = [0];
        $row = 0;
        $open = [];
        $openRows = [];
        $at = $firstChild[0] ?? 0;
        while ($at !== 0) {
            $order[] = $at;
            $end[++$row] = $row;
            if (isset($firstChild[$at])) {
                $open[] = $at;
                $openRows[] = $row;
                $at = $firstChild[$at];

                continue;
            }
            while (! isset($next[$at]) && $open !== []) {
                $at = array_pop($open);
                $end[array_pop($openRows)] = $row;
            }
            $at = $next[$at] ?? 0;
        }
        if (count($order) !== count($parents)) {
            throw new \LogicException(
                'The objects do not form a forest: '.(count($parents) - count($order)).' of them are under no root.',
            );
        }

        return [$order, array_values($end)];
    }
}
