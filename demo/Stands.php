<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** The spectators' stand: five tiers, two blocks of seats, aisle seats in another colour, steps and rails. */
final class Stands
{
    public static function build(Model $m, int $parent): void
    {
        $stand = $m->group($parent, 'Stand South', ['layer' => '50 Stands', 'level' => 'Pool level']);
        $tiers = $m->group($stand, 'Tiers', ['layer' => '50 Stands']);
        for ($tier = 0; $tier < 5; $tier++) {
            $height = 0.42 * ($tier + 1);
            $mesh = $m->mesh(
                "Tier $tier",
                static fn (): array => ['concrete' => (new Shape)->box(0, 0, $height / 2, 27.4, 0.95, $height)],
            );
            $m->part($tiers, "Tier_$tier", $mesh, ['layer' => '50 Stands', 'class' => 'Slab'], [-4.0, -10.9 - 0.95 * $tier, 0.0]);
        }
        self::seats($m, $m->group($stand, 'Seats', ['layer' => '51 Seats']));
        self::rails($m, $m->group($stand, 'Steps and rails', ['layer' => '52 Steps and rails']));
    }

    private static function seats(Model $m, int $seats): void
    {
        $seat = static fn (string $material): callable => static function () use ($m, $material): array {
            $cuts = max(2, (int) round(7 * $m->detail));
            $path = [];
            for ($at = 0; $at <= $cuts; $at++) {
                $t = $at / $cuts;
                $path[] = [
                    0.0,
                    0.22 - 0.4 * min(1.0, $t * 1.7) - 0.04 * max(0.0, $t - 0.6),
                    0.42 + 0.03 * (1 - $t) + ($t > 0.5 ? 0.42 * (($t - 0.5) * 2) ** 1.2 : 0.0),
                ];
            }

            return [
                $material => (new Shape)->sweep(
                    $path,
                    [[-0.21, -0.02], [0.21, -0.02], [0.23, 0.0], [0.21, 0.02], [-0.21, 0.02], [-0.23, 0.0]],
                    false,
                ),
                'stainless' => (new Shape)->tube([[0.0, -0.05, 0.0], [0.0, 0.0, 0.4]], 0.03, $m->sides(6)),
            ];
        };
        $green = $m->mesh('Seat shell', $seat('seat green'));
        $aisle = $m->mesh('Seat shell aisle', $seat('seat ochre'));
        $mark = 0;
        foreach (['West' => -17.2, 'East' => -3.2] as $name => $start) {
            $block = $m->group($seats, "Block $name", ['layer' => '51 Seats', 'block' => $name]);
            for ($tier = 0; $tier < 5; $tier++) {
                $row = $m->group($block, 'Row '.chr(65 + $tier), ['layer' => '51 Seats']);
                for ($at = 0; $at < 24; $at++) {
                    $onAisle = $at === 0 || $at === 23;
                    $mark++;
                    $m->part(
                        $row,
                        sprintf('Seat_Shell_%03d', $mark),
                        $onAisle ? $aisle : $green,
                        ['layer' => '51 Seats', 'row' => chr(65 + $tier), 'seat' => $at + 1] + ($onAisle ? ['aisle' => true] : []),
                        [$start + $at * 0.545, -10.95 - 0.95 * $tier, 0.42 * ($tier + 1)],
                        M_PI,
                    );
                }
            }
        }
    }

    private static function rails(Model $m, int $rails): void
    {
        $step = $m->mesh('Half step', static fn (): array => ['coping stone' => (new Shape)->box(0, 0, 0.105, 0.9, 0.3, 0.21)]);
        $rail = $m->mesh('Stand rail', static function () use ($m): array {
            $shape = new Shape;
            $shape->tube([[0.0, 0.0, 0.0], [0.0, 0.0, 1.0], [0.0, -3.8, 2.68], [0.0, -3.8, 1.7]], 0.024, $m->sides(8));
            for ($at = 1; $at < 4; $at++) {
                $shape->tube([[0.0, -0.95 * $at, 0.42 * $at], [0.0, -0.95 * $at, 1 + 0.42 * $at]], 0.018, $m->sides(6));
            }

            return ['stainless' => $shape];
        });
        foreach ([-17.7, -3.95, 9.9] as $index => $x) {
            for ($tier = 0; $tier < 5; $tier++) {
                $m->part(
                    $rails,
                    "Step $index.$tier",
                    $step,
                    ['layer' => '52 Steps and rails', 'class' => 'Stair'],
                    [$x + ($index === 2 ? -0.3 : ($index === 0 ? 0.1 : 0.05)), -10.6 - 0.95 * $tier, 0.42 * $tier],
                );
            }
            $m->part($rails, "Handrail_$index", $rail, ['layer' => '52 Steps and rails', 'class' => 'Railing'], [$x, -10.7, 0.42]);
        }
    }
}
