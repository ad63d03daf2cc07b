<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** Everything whose width, length and height are the same, turned or not. Groups are not the size of a part that fills them. */
final class SameSize implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $sizes = self::sizes($facts, $pick->rows());
        $candidates = [];
        foreach (self::stretches($sizes, $asked->tolerance) as [$low, $high]) {
            array_push($candidates, ...$facts->ranked('size')->between($low, $high)->rows());
        }
        $alike = self::alike($sizes, self::sizes($facts, $candidates), $asked->tolerance);
        sort($alike);
        $kinds = Codes::of($pick, static fn (int $row): int => $facts->scene->kind($row)->value);

        return $pick->or(Bits::ofRows($pick->length, $alike)->and($facts->ranked('kind')->in($kinds)));
    }

    /**
     * @param list<int> $rows
     *
     * @return array<int, array{float, float, float}> by row: its sides, ascending, metres
     */
    private static function sizes(Facts $facts, array $rows): array
    {
        $sizes = [];
        foreach ($rows as $row) {
            $box = $facts->box($row);
            if ($box !== null) {
                $sides = [$box[3] - $box[0], $box[4] - $box[1], $box[5] - $box[2]];
                sort($sides);
                $sizes[$row] = [$sides[0], $sides[1], $sides[2]];
            }
        }

        return $sizes;
    }

    /**
     * Where the longest side of what is alike lies.
     *
     * @param array<int, array{float, float, float}> $sizes
     *
     * @return list<array{float, float}> apart, ascending
     */
    private static function stretches(array $sizes, float $tolerance): array
    {
        $longest = array_unique(array_column($sizes, 2));
        sort($longest);
        $stretches = [];
        $open = null;
        foreach ($longest as $side) {
            $near = self::near($side, $tolerance);
            if ($open !== null && $side - $near > $open[1]) {
                $stretches[] = $open;
                $open = null;
            }
            $open = [$open[0] ?? $side - $near, $side + $near];
        }

        return $open === null ? $stretches : [...$stretches, $open];
    }

    /**
     * The candidates are sorted into cells as large as sizes may differ, larger ones for larger sizes, so that each size is compared with
     * its neighbours only, however many there are.
     *
     * @param array<int, array{float, float, float}> $sizes
     * @param array<int, array{float, float, float}> $candidates
     *
     * @return list<int> rows of candidates that are alike
     */
    private static function alike(array $sizes, array $candidates, float $tolerance): array
    {
        $cells = [];
        foreach ($candidates as $row => [$a, $b, $c]) {
            $level = self::level($c);
            $cell = self::cell($level, $tolerance);
            $cells[$level.':'.(int) floor($a / $cell).':'.(int) floor($b / $cell).':'.(int) floor($c / $cell)][] = $row;
        }
        $found = $seen = [];
        foreach ($sizes as [$a, $b, $c]) {
            $key = sprintf('%.5f %.5f %.5f', $a, $b, $c);
            if (isset($seen[$key])) {
                continue;
            }
            $seen[$key] = true;
            $near = self::near($c, $tolerance);
            foreach (array_unique([self::level($c - $near), self::level($c), self::level($c + $near)]) as $level) {
                $cell = self::cell($level, $tolerance);
                [$x, $y, $z] = [(int) floor($a / $cell), (int) floor($b / $cell), (int) floor($c / $cell)];
                for ($at = 0; $at < 27; $at++) {
                    foreach (
                        $cells[
                            $level.':'.($x - 1 + ($at % 3)).':'.($y - 1 + (intdiv($at, 3) % 3)).':'.($z - 1 + intdiv($at, 9))
                        ] ?? [] as $row
                    ) {
                        [$p, $q, $r] = $candidates[$row];
                        if (abs($p - $a) <= $near && abs($q - $b) <= $near && abs($r - $c) <= $near) {
                            $found[$row] = $row;
                        }
                    }
                }
            }
        }

        return array_values($found);
    }

    private static function near(float $longest, float $tolerance): float
    {
        return $longest * $tolerance + 1e-4;
    }

    /** Sizes of one level are less than twice as large as each other. */
    private static function level(float $longest): int
    {
        return (int) floor(log(max($longest, 1e-4), 2));
    }

    /** The side of a level's cells: no smaller than any two sizes of it, or of the level above, may differ. */
    private static function cell(int $level, float $tolerance): float
    {
        return self::near(2 ** ($level + 2), $tolerance);
    }
}
