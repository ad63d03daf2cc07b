<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Views\Upright;

final class UprightTest extends TestCase
{
    public function test_up_is_the_highest_of_what_stands_across_the_way(): void
    {
        mt_srand(4);
        for ($round = 0; $round < 300; $round++) {
            $way = self::unit([mt_rand(-9, 9), mt_rand(-9, 9), mt_rand(-9, 9) ?: 1]);
            $up = Upright::of($way);
            self::assertEqualsWithDelta(0.0, self::dot($way, $up), 1e-12);
            self::assertEqualsWithDelta(1.0, self::dot($up, $up), 1e-12);
            self::assertTrue(Upright::is($way, $up));
            // Turned around the way by any angle, something else is up.
            $side = [$way[1] * $up[2] - $way[2] * $up[1], $way[2] * $up[0] - $way[0] * $up[2], $way[0] * $up[1] - $way[1] * $up[0]];
            foreach ([0.01, 0.7, M_PI_2, M_PI, 5.0] as $angle) {
                $turned = array_map(static fn (float $a, float $b): float => cos($angle) * $a + sin($angle) * $b, $up, $side);
                self::assertLessThanOrEqual($up[2] + 1e-12, $turned[2]);
                self::assertFalse(Upright::is($way, [$turned[0], $turned[1], $turned[2]]));
            }
            // Length, and what goes along the way, do not count.
            self::assertTrue(Upright::is($way, [3 * $up[0] + 2 * $way[0], 3 * $up[1] + 2 * $way[1], 3 * $up[2] + 2 * $way[2]]));
        }
        self::assertSame([0.0, 1.0, 0.0], Upright::of([0.0, 0.0, -1.0]));
        self::assertTrue(Upright::is([0.0, 0.0, -1.0], [0.0, 0.0, 1.0]), 'what says nothing across the way');
        self::assertFalse(Upright::is([0.0, 0.0, -1.0], [1.0, 0.0, 0.0]), 'a plan that is turned');
    }

    /** @param list<int> $of @return array{float, float, float} */
    private static function unit(array $of): array
    {
        $length = sqrt($of[0] ** 2 + $of[1] ** 2 + $of[2] ** 2);

        return [$of[0] / $length, $of[1] / $length, $of[2] / $length];
    }

    /** @param array{float, float, float} $a @param array{float, float, float} $b */
    private static function dot(array $a, array $b): float
    {
        return $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
    }
}
