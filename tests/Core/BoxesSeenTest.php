<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use VineShelf\Picking\BoxesSeen;
use VineShelf\Picking\Camera;
use VineShelf\Picking\Region;

/** Boxes seen through a camera, against thousands of places in each of them. */
final class BoxesSeenTest extends TestCase
{
    private const ORIGIN = [3.0, -2.0, 1.0];

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 12) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_a_box_of_which_a_place_shows_in_the_region_is_never_out_and_one_that_is_in_shows_nothing_outside(int $seed): void
    {
        mt_srand($seed);
        $eye = [mt_rand(-50, 50), -mt_rand(12, 60), mt_rand(-5, 30)];
        $camera = $seed % 3 === 0
            ? Camera::parallel([40, -60, 30], [0, 0, 0], [0, 0, 1], mt_rand(20, 80), 780, 644)
            : Camera::perspective($eye, [0, 0, 0], [0, 0, 1], mt_rand(30, 90), 780, 644, 0.1);
        $region = match ($seed % 4) {
            0 => Region::rectangle(300, 200, 480, 400),
            1 => Region::circle(390, 320, 120),
            2 => Region::brush([[250, 300], [420, 340], [500, 200]], 30),
            default => Region::polygon([[200, 150], [560, 200], [380, 300], [520, 480]]),
        };
        [$packed, $boxes] = self::boxes(150);
        $seen = new BoxesSeen($camera, $region, self::ORIGIN);
        $met = [Region::OUT => 0, Region::MIXED => 0, Region::IN => 0];
        foreach ([false, true] as $exactly) {
            $found = $seen->are($packed, range(0, 11), 13, $exactly);
            foreach ($boxes as $row => $box) {
                $is = $found[$row] ?? Region::OUT;
                $met[$is]++;
                [$showing, $elsewhere] = self::places($box, $camera, $region);
                self::assertFalse($is === Region::OUT && $showing > 0, "row $row shows in the region and is out");
                self::assertFalse($is === Region::IN && $elsewhere > 0, "row $row is in and shows outside the region");
            }
        }
        self::assertGreaterThan(0, min($met[Region::OUT], $met[Region::MIXED]));
    }

    public function test_only_the_runs_that_are_asked_for_are_told_and_no_box_is_out(): void
    {
        $camera = Camera::perspective([0, -20, 0], [0, 0, 0], [0, 0, 1], 60, 800, 800, 0.1);
        $boxes = pack('g6', INF, INF, INF, -INF, -INF, -INF).str_repeat(pack('g6', -1, -1, -1, 1, 1, 1), 6);
        $seen = new BoxesSeen($camera, Region::rectangle(0, 0, 800, 800), [0.0, 0.0, 0.0]);
        self::assertSame([3 => Region::IN, 1 => Region::IN], $seen->are($boxes, [3, 0, 1], 1, true));
        self::assertSame([6 => Region::IN, 1 => Region::IN], $seen->are($boxes, [3, 0], 2, true), 'the last run has one box');
        self::assertSame([], $seen->are($boxes, [4, 5], 2, true), 'there are no such runs');
        self::assertSame([], $seen->are($boxes, [], 8, true));
        self::assertSame([], $seen->are('', [0], 8, false));
    }

    /** @return array{string, array<int, array{float, float, float, float, float, float}>} */
    private static function boxes(int $count): array
    {
        $packed = '';
        $boxes = [];
        for ($row = 0; $row < $count; $row++) {
            $low = [mt_rand(-300, 300) / 10, mt_rand(-300, 300) / 10, mt_rand(-100, 100) / 10];
            $high = array_map(static fn (float $at): float => $at + mt_rand(0, $row % 5 === 0 ? 200 : 20) / 10, $low);
            $packed .= pack('g6', ...$low, ...$high);
            $boxes[] = [...$low, ...$high];
        }

        return [$packed, $boxes];
    }

    /**
     * @param array{float, float, float, float, float, float} $box
     *
     * @return array{int, int} how many places of it show in the region, and how many outside it or behind the camera
     */
    private static function places(array $box, Camera $camera, Region $region): array
    {
        $m = $camera->rows;
        $in = $out = 0;
        for ($place = 0; $place < 60; $place++) {
            $at = [];
            for ($axis = 0; $axis < 3; $axis++) {
                // Corners first, then anywhere.
                $share = $place < 8 ? ($place >> $axis) & 1 : mt_rand(0, 1000) / 1000;
                $at[] = $box[$axis] + $share * ($box[$axis + 3] - $box[$axis]) + self::ORIGIN[$axis];
            }
            $w = $m[8] * $at[0] + $m[9] * $at[1] + $m[10] * $at[2] + $m[11];
            $x = ($m[0] * $at[0] + $m[1] * $at[1] + $m[2] * $at[2] + $m[3]) / $w;
            $y = ($m[4] * $at[0] + $m[5] * $at[1] + $m[6] * $at[2] + $m[7]) / $w;
            $w >= $camera->near && $region->has($x, $y) ? $in++ : $out++;
        }

        return [$in, $out];
    }
}
