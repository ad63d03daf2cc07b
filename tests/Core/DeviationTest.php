<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use VineShelf\Simplify\Deviation;
use VineShelf\Simplify\TriangleTree;

/** Surfaces are lists of triangles here, nine numbers each. */
final class DeviationTest extends TestCase
{
    public function test_the_nearest_triangle_is_the_one_that_looking_at_all_of_them_finds(): void
    {
        mt_srand(11);
        foreach ([1, 3, 4, 5, 17, 300] as $count) {
            $surface = self::soup($count, 0.4);
            $tree = self::tree($surface);
            self::assertCount($count, $tree->triangles);
            for ($round = 0; $round < 60; $round++) {
                $point = [self::random(-2, 2), self::random(-2, 2), self::random(-2, 2)];
                [$square, $at] = $tree->nearest($point, $round % 3 === 0 ? mt_rand(0, $count - 1) : -1);
                self::assertEqualsWithDelta(self::away($point, $surface), sqrt($square), 1e-9);
                self::assertEqualsWithDelta(self::away($point, [array_merge(...$tree->triangles[$at])]), sqrt($square), 1e-9);
            }
        }
        self::assertSame([INF, -1], self::tree([])->nearest([0.0, 0.0, 0.0]));
    }

    /** @return iterable<string, array{list<list<float>>, list<list<float>>, float, float}> two surfaces, how far each is from the other */
    public static function known(): iterable
    {
        $wall = self::plate(0, 0, 6, 3);
        $open = [...self::plate(0, 0, 2, 3), ...self::plate(3.2, 0, 6, 3), ...self::plate(2, 0, 3.2, 0.9), ...self::plate(2, 2.1, 3.2, 3)];
        yield 'a window of 1.2 by 1.2 m that is closed' => [$open, $wall, 0.0, 0.6];
        yield 'a plate that moved along its normal' => [$wall, self::plate(0, 0, 6, 3, 0.25), 0.25, 0.25];
        yield 'half of a plate' => [self::plate(0, 0, 1, 1), self::plate(0, 0, 0.5, 1), 0.5, 0.0];
        $leaf = self::plate(0, 0, 1, 1);
        yield 'one of two leaves that went' => [[...$leaf, ...self::plate(0, 0, 1, 1, 3)], $leaf, 3.0, 0.0];
        $point = [[0.0, 0.0, 2.0, 0.0, 0.0, 2.0, 0.0, 0.0, 2.0]];
        yield 'a point over a triangle' => [$point, [[0.0, 0.0, 0.0, 3.0, 0.0, 0.0, 0.0, 4.0, 0.0]], 2.0, sqrt(20)];
        $cutOtherwise = [[0.0, 0.0, 0.0, 6.0, 0.0, 0.0, 0.0, 3.0, 0.0], [6.0, 0.0, 0.0, 6.0, 3.0, 0.0, 0.0, 3.0, 0.0]];
        yield 'the same, cut otherwise' => [$wall, $cutOtherwise, 0.0, 0.0];
    }

    /**
     * @param list<list<float>> $one
     * @param list<list<float>> $other
     */
    #[DataProvider('known')]
    public function test_both_ways_are_what_they_are_on_paper(array $one, array $other, float $there, float $back): void
    {
        [$first, $second] = [self::tree($one), self::tree($other)];
        foreach ([[Deviation::from($first, $second), $there], [Deviation::from($second, $first), $back]] as [$deviation, $real]) {
            self::assertGreaterThanOrEqual($real - 1e-9, $deviation->most);
            self::assertLessThanOrEqual(max(1.4 * $real, 1e-4) + 1e-9, $deviation->most);
            self::assertLessThanOrEqual($real + 1e-9, $deviation->least);
        }
        $whole = Deviation::between($first, $second);
        self::assertGreaterThanOrEqual(max($there, $back) - 1e-9, $whole->most);
        self::assertLessThanOrEqual(max(1.4 * max($there, $back), 1e-4) + 1e-9, $whole->most);
    }

    public function test_nothing_is_infinitely_far_from_something(): void
    {
        [$none, $plate] = [self::tree([]), self::tree(self::plate(0, 0, 1, 1))];
        self::assertSame(INF, Deviation::between($plate, $none)->most);
        self::assertSame(INF, Deviation::between($none, $plate)->most);
        self::assertSame(0.0, Deviation::between($none, $none)->most);
        self::assertEqualsWithDelta(1.0, Deviation::areaBeyond($plate, $none, 5.0, 0.1), 1e-9);
    }

    /** @return iterable<string, array{int, float, int, bool}> triangles, metres across, samples along an edge, whether related */
    public static function soups(): iterable
    {
        yield 'soup' => [14, 1.2, 16, false];
        yield 'crumbs' => [60, 0.15, 3, false];
        yield 'a soup of which some went, and the rest was shaken' => [40, 0.5, 5, true];
        yield 'long slivers' => [12, 3.0, 18, true];
    }

    #[DataProvider('soups')]
    public function test_no_sample_is_farther_than_is_said_and_what_is_said_is_near(int $count, float $wide, int $steps, bool $isMade): void
    {
        for ($seed = 1; $seed <= 4; $seed++) {
            mt_srand($seed);
            $one = self::soup($count, $wide);
            $other = $isMade ? self::shaken($one) : self::soup($count + 3, $wide);
            $deviation = Deviation::between(self::tree($one), self::tree($other));
            $sampled = max(self::farthest($one, $other, $steps), self::farthest($other, $one, $steps));
            self::assertGreaterThanOrEqual($sampled - 1e-9, $deviation->most);
            self::assertLessThanOrEqual(max(1.4 * $deviation->least, 1e-4) + 1e-9, $deviation->most);
            // Samples are a share of the widest triangle apart.
            self::assertLessThanOrEqual($sampled + 2 * $wide / $steps, $deviation->least);
        }
    }

    public function test_the_area_that_is_farther_is_what_it_is_on_paper(): void
    {
        $whole = self::tree(self::plate(0, 0, 1, 1));
        $half = self::tree(self::plate(0, 0, 0.5, 1));
        foreach (['0.0' => 0.5, '0.1' => 0.4, '0.25' => 0.25, '0.5' => 0.0] as $metres => $area) {
            self::assertEqualsWithDelta($area, Deviation::areaBeyond($whole, $half, (float) $metres, 0.02), 0.015, "$metres");
            self::assertSame(0.0, Deviation::areaBeyond($half, $whole, (float) $metres + 1e-9, 0.02));
        }
        // A leaf of 1 by 1 m went, half a metre beside the one that stayed.
        $two = self::tree([...self::plate(0, 0, 1, 1), ...self::plate(1.5, 0, 2.5, 1)]);
        self::assertEqualsWithDelta(1.0, Deviation::areaBeyond($two, $whole, 0.2, 0.02), 1e-9);
        self::assertEqualsWithDelta(0.8, Deviation::areaBeyond($two, $whole, 0.7, 0.02), 0.015);
    }

    /** @param list<list<float>> $surface */
    private static function tree(array $surface): TriangleTree
    {
        $x = $y = $z = [];
        foreach ($surface as $triangle) {
            for ($at = 0; $at < 9; $at += 3) {
                [$x[], $y[], $z[]] = [$triangle[$at], $triangle[$at + 1], $triangle[$at + 2]];
            }
        }

        return TriangleTree::of($x, $y, $z, array_keys($x));
    }

    /** @return list<list<float>> an upright rectangle */
    private static function plate(float $left, float $low, float $right, float $high, float $z = 0.0): array
    {
        return [[$left, $low, $z, $right, $low, $z, $right, $high, $z], [$left, $low, $z, $right, $high, $z, $left, $high, $z]];
    }

    private static function random(float $from, float $to): float
    {
        return $from + ($to - $from) * mt_rand() / mt_getrandmax();
    }

    /** @return list<list<float>> triangles anywhere within a metre of the origin along each axis */
    private static function soup(int $count, float $wide): array
    {
        $soup = [];
        for ($at = 0; $at < $count; $at++) {
            $middle = [self::random(-1, 1), self::random(-1, 1), self::random(-1, 1)];
            $soup[] = array_map(static fn (int $n): float => $middle[$n % 3] + self::random(-$wide / 2, $wide / 2), range(0, 8));
        }

        return $soup;
    }

    /**
     * @param list<list<float>> $soup
     *
     * @return list<list<float>> some of it, every corner a little elsewhere
     */
    private static function shaken(array $soup): array
    {
        $left = [$soup[0], ...array_filter(array_slice($soup, 1), static fn (): bool => mt_rand(0, 4) > 0)];
        $shake = static fn (float $n): float => $n + self::random(-0.02, 0.02);

        return array_map(static fn (array $of): array => array_map($shake, $of), $left);
    }

    /**
     * The farthest of many samples.
     *
     * @param list<list<float>> $one
     * @param list<list<float>> $other
     */
    private static function farthest(array $one, array $other, int $steps): float
    {
        $most = 0.0;
        foreach ($one as $t) {
            for ($u = 0; $u <= $steps; $u++) {
                for ($v = 0; $u + $v <= $steps; $v++) {
                    [$p, $q] = [$u / $steps, $v / $steps];
                    $of = static fn (int $n): float => $t[$n] + $p * ($t[$n + 3] - $t[$n]) + $q * ($t[$n + 6] - $t[$n]);
                    $most = max($most, self::away([$of(0), $of(1), $of(2)], $other));
                }
            }
        }

        return $most;
    }

    /**
     * From a point to the nearest of all triangles: above a triangle's inside to its plane, else to the nearest of its edges.
     *
     * @param array{float, float, float} $p
     * @param list<list<float>>          $surface
     */
    private static function away(array $p, array $surface): float
    {
        $least = INF;
        foreach ($surface as $t) {
            $corners = array_chunk($t, 3);
            $normal = self::cross(self::minus($corners[1], $corners[0]), self::minus($corners[2], $corners[0]));
            $size = sqrt(self::dot($normal, $normal));
            $isOver = $size > 0;
            foreach ([0, 1, 2] as $at) {
                [$a, $b] = [$corners[$at], $corners[($at + 1) % 3]];
                [$edge, $way] = [self::minus($b, $a), self::minus($p, $a)];
                $isOver = $isOver && self::dot(self::cross($normal, $edge), $way) >= 0;
                $along = self::dot($edge, $edge) > 0 ? max(0, min(1, self::dot($way, $edge) / self::dot($edge, $edge))) : 0;
                $rest = self::minus($way, array_map(static fn (float $n): float => $n * $along, $edge));
                $least = min($least, sqrt(self::dot($rest, $rest)));
            }
            if ($isOver) {
                $least = min($least, abs(self::dot($normal, self::minus($p, $corners[0]))) / $size);
            }
        }

        return $least;
    }

    /**
     * @param array<float> $a
     * @param array<float> $b
     *
     * @return array{float, float, float}
     */
    private static function minus(array $a, array $b): array
    {
        return [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    }

    /**
     * @param array<float> $a
     * @param array<float> $b
     *
     * @return array{float, float, float}
     */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }

    /**
     * @param array<float> $a
     * @param array<float> $b
     */
    private static function dot(array $a, array $b): float
    {
        return $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
    }
}
