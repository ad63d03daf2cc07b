<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Weights\TreeMap;

final class TreeMapTest extends TestCase
{
    public function test_areas_are_as_the_numbers_nothing_overlaps_and_the_whole_is_filled(): void
    {
        mt_srand(8);
        for ($round = 0; $round < 300; $round++) {
            [$width, $height] = [mt_rand(1, 1200) * 1.0, mt_rand(1, 700) * 1.0];
            $values = [];
            for ($count = mt_rand(0, 40), $at = 0; $at < $count; $at++) {
                $values["k$at"] = mt_rand(0, 3) === 0 ? 0 : mt_rand(1, 10 ** mt_rand(1, 7));
            }
            $laid = TreeMap::of($values, $width, $height);
            $sum = array_sum($values);
            self::assertSame(array_keys(array_filter($values)), array_values(array_intersect(array_keys($values), array_keys($laid))));
            foreach ($laid as $key => [$left, $top, $wide, $tall]) {
                self::assertEqualsWithDelta(($width * $height * $values[$key]) / $sum, $wide * $tall, 1e-6 * $width * $height);
                self::assertGreaterThanOrEqual(-1e-6, min($left, $top, $width - $left - $wide + 1e-6, $height - $top - $tall + 1e-6));
            }
            foreach ($laid as $one => [$l, $t, $w, $h]) {
                foreach ($laid as $other => [$ol, $ot, $ow, $oh]) {
                    $shared = max(0.0, min($l + $w, $ol + $ow) - max($l, $ol)) * max(0.0, min($t + $h, $ot + $oh) - max($t, $ot));
                    $one === $other || self::assertLessThan(1e-5 * $width * $height, $shared);
                }
            }
        }
        self::assertSame([], TreeMap::of([], 10, 10));
        self::assertSame([], TreeMap::of(['a' => 0], 10, 10));
        self::assertSame([], TreeMap::of(['a' => 1], 0, 10));
    }

    public function test_the_example_that_its_inventors_give(): void
    {
        // Areas 6, 6, 4, 3, 2, 2, 1 in a rectangle of 6 by 4: two beside each other at the left, then two on top of the rest.
        $laid = TreeMap::of([6, 6, 4, 3, 2, 2, 1], 6, 4);
        self::assertEquals([0.0, 0.0, 3.0, 2.0], $laid[0]);
        self::assertEquals([0.0, 2.0, 3.0, 2.0], $laid[1]);
        self::assertEqualsWithDelta([3.0, 0.0, 12 / 7, 7 / 3], $laid[2], 1e-9);
        self::assertEqualsWithDelta([3.0 + 12 / 7, 0.0, 9 / 7, 7 / 3], $laid[3], 1e-9);
        self::assertEqualsWithDelta([3.0, 7 / 3], array_slice($laid[4], 0, 2), 1e-9);
    }

    public function test_none_is_a_thin_strip_where_all_are_alike(): void
    {
        foreach (TreeMap::of(array_fill(0, 37, 5), 800, 300) as [, , $wide, $tall]) {
            self::assertLessThan(3.0, max($wide / $tall, $tall / $wide));
        }
    }
}
