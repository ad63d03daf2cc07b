<?php

declare(strict_types=1);

namespace VineShelf\Section;

/**
 * What lines in a plane go round, as trapezoids.
 *
 * Inside is what lines go round more often one way than the other, as long as they all join head to tail; where a mesh's triangles face
 * every way, what an odd number of lines separates from the outside. The plane is swept from line end to line end (Preparata and Shamos,
 * "Computational Geometry", 1985, chapter 2).
 *
 * A line goes from u, v to u, v.
 *
 * @phpstan-type Line array{float, float, float, float}
 */
final class Filling
{
    /**
     * @param list<Line> $lines
     *
     * @return list<list<float>> trapezoids and triangles: corners, u, v after u, v
     */
    public static function of(array $lines): array
    {
        $joins = self::joins($lines);
        $isOriented = $joins === [] || (min($joins) === 0 && max($joins) === 0);
        $lines = $isOriented ? $lines : self::closed($lines);
        $rising = $levels = [];
        foreach ($lines as [$u0, $v0, $u1, $v1]) {
            if ($v0 !== $v1) {
                $rising[] = $v0 < $v1 ? [$v0, $v1, $u0, $u1, 1] : [$v1, $v0, $u1, $u0, -1];
                $levels[] = $v0;
                $levels[] = $v1;
            }
        }
        sort($levels);
        usort($rising, static fn (array $one, array $other): int => $one[0] <=> $other[0]);
        $polygons = $active = [];
        $next = 0;
        for ($level = 0, $last = count($levels) - 1; $level < $last; $level++) {
            [$low, $high] = [$levels[$level], $levels[$level + 1]];
            if ($low === $high) {
                continue;
            }
            $active = array_filter($active, static fn (array $line): bool => $line[1] > $low);
            for (; $next < count($rising) && $rising[$next][0] <= $low; $next++) {
                $active[] = $rising[$next];
            }
            $crossing = [];
            foreach ($active as [$v0, $v1, $u0, $u1, $way]) {
                $slope = ($u1 - $u0) / ($v1 - $v0);
                $crossing[] = [$u0 + $slope * ($low - $v0), $high === $v1 ? $u1 : $u0 + $slope * ($high - $v0), $way];
            }
            usort($crossing, static fn (array $one, array $other): int => $one[0] + $one[1] <=> $other[0] + $other[1]);
            $wound = 0;
            foreach ($crossing as $at => [$below, $above, $way]) {
                $isIn = $isOriented ? $wound !== 0 : $wound % 2 !== 0;
                if ($isIn && $at > 0) {
                    $polygons[] = [$crossing[$at - 1][0], $low, $below, $low, $above, $high, $crossing[$at - 1][1], $high];
                }
                $wound += $isOriented ? $way : 1;
            }
        }

        return $polygons;
    }

    /**
     * How many more lines begin in each place than end there.
     *
     * @param list<Line> $lines
     *
     * @return array<string, int>
     */
    private static function joins(array $lines): array
    {
        $joins = [];
        foreach ($lines as [$u0, $v0, $u1, $v1]) {
            $from = pack('e2', $u0, $v0);
            $to = pack('e2', $u1, $v1);
            $joins[$from] = ($joins[$from] ?? 0) + 1;
            $joins[$to] = ($joins[$to] ?? 0) - 1;
        }

        return $joins;
    }

    /**
     * Each line once, without those that lead nowhere.
     *
     * @param list<Line> $lines
     *
     * @return list<Line>
     */
    private static function closed(array $lines): array
    {
        $once = $at = [];
        foreach ($lines as $line) {
            [$from, $to] = [pack('e2', $line[0], $line[1]), pack('e2', $line[2], $line[3])];
            $key = $from < $to ? $from.$to : $to.$from;
            if (! isset($once[$key])) {
                $once[$key] = $line;
                $at[$from][$key] = $to;
                $at[$to][$key] = $from;
            }
        }
        $loose = array_keys(array_filter($at, static fn (array $lines): bool => count($lines) === 1));
        while ($loose !== []) {
            $place = array_pop($loose);
            foreach ($at[$place] as $key => $other) {
                unset($once[$key], $at[$place][$key], $at[$other][$key]);
                if (count($at[$other]) === 1) {
                    $loose[] = $other;
                }
            }
        }

        return array_values($once);
    }
}
