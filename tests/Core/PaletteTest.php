<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use VineShelf\Colours\Palette;

/** Colours of what comes without are told apart on sight, and kept away from the accent of the pick. */
final class PaletteTest extends TestCase
{
    private const PICK = ['#7a3e74', '#e0a6d8'];

    #[TestWith(['#8a6a86'])]
    #[TestWith(['#7a3e74'])]
    #[TestWith(['#e0a6d8'])]
    #[TestWith(['#000000'])]
    #[TestWith(['#ffffff'])]
    #[TestWith(['#b9b3a2'])]
    #[TestWith(['#00ff00'])]
    public function test_twelve_trades_of_one_averaged_colour_come_out_as_twelve(string $averaged): void
    {
        $this->assertApart(Palette::onSight(array_fill(0, 30, $averaged)));
    }

    public function test_random_materials_and_colours_one_after_the_other(): void
    {
        mt_srand(9);
        for ($run = 0; $run < 12; $run++) {
            $wanted = [];
            for ($index = 0; $index < 24; $index++) {
                $wanted[] = sprintf('#%06x', mt_rand(0, 0xffffff));
            }
            $this->assertApart(Palette::onSight($wanted));
        }
        $taken = [];
        for ($index = 0; $index < 24; $index++) {
            $taken[] = Palette::next($taken);
        }
        $this->assertApart($taken);
    }

    public function test_a_colour_that_is_apart_already_stays_what_it_is(): void
    {
        $wanted = ['#3f7a63', '#c98f4a', '#4f7fd0', '#e3dc4b'];
        self::assertSame($wanted, Palette::onSight($wanted));
        self::assertSame([], Palette::onSight([]));
        self::assertCount(300, Palette::onSight(array_fill(0, 300, '#808080')));
    }

    /** @param list<string> $colours */
    private function assertApart(array $colours): void
    {
        foreach ($colours as $index => $colour) {
            $least = $index < 12 ? 0.12 : ($index < 24 ? 0.09 : 0.05);
            foreach ([...self::PICK, ...array_slice($colours, 0, $index)] as $other) {
                $distance = self::plain($colour, $other);
                $from = in_array($other, self::PICK, true) ? min(0.08, $least) : $least;
                self::assertGreaterThanOrEqual($from, $distance, "colour $index, $colour, beside $other");
            }
        }
    }

    /** The distance once more, from the published formula written out. */
    private static function plain(string $one, string $other): float
    {
        $of = static function (string $hex): array {
            $channels = sscanf($hex, '#%02x%02x%02x');
            \assert(is_array($channels));
            $lms = [0.0, 0.0, 0.0];
            $matrix = [
                [0.4122214708, 0.5363325363, 0.0514459929],
                [0.2119034982, 0.6806995451, 0.1073969566],
                [0.0883024619, 0.2817188376, 0.6299787005],
            ];
            foreach ($matrix as $row => $weights) {
                foreach ($weights as $at => $weight) {
                    $value = (int) $channels[$at] / 255;
                    $lms[$row] += $weight * ($value > 0.04045 ? (($value + 0.055) / 1.055) ** 2.4 : $value / 12.92);
                }
                $lms[$row] **= 1 / 3;
            }

            return [
                0.2104542553 * $lms[0] + 0.793617785 * $lms[1] - 0.0040720468 * $lms[2],
                1.9779984951 * $lms[0] - 2.428592205 * $lms[1] + 0.4505937099 * $lms[2],
                0.0259040371 * $lms[0] + 0.7827717662 * $lms[1] - 0.808675766 * $lms[2],
            ];
        };
        [$a, $b] = [$of($one), $of($other)];

        return sqrt(($a[0] - $b[0]) ** 2 + ($a[1] - $b[1]) ** 2 + ($a[2] - $b[2]) ** 2);
    }
}
