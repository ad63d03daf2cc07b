<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** The gallery with its loungers, the café corner, the lights, and the two finishes schemes. */
final class Rooms
{
    public static function build(Model $m, int $parent): void
    {
        self::gallery($m, $m->group($parent, 'Gallery', ['layer' => '80 Gallery', 'level' => 'Gallery'], [18.9, 11.6, 3.4]));
        self::cafe($m, $m->group($parent, 'Cafe', ['layer' => '81 Cafe', 'level' => 'Pool level'], [20.5, -13.4, 0.0]));
        self::lights($m, $m->group($parent, 'Lights', ['layer' => '95 Lights']));
        foreach (['A', 'B'] as $scheme) {
            self::finishes(
                $m,
                $m->group($parent, "Finishes scheme $scheme", ['layer' => "96 Finishes $scheme", 'scheme' => $scheme]),
                $scheme,
            );
        }
    }

    private static function gallery(Model $m, int $gallery): void
    {
        $m->part(
            $gallery,
            'Gallery slab',
            $m->mesh('Gallery slab', static fn (): array => ['concrete' => (new Shape)->box(0, 0, 0, 16.6, 11.4, 0.28)]),
            ['layer' => '11 Slabs', 'class' => 'Slab', 'level' => 'Gallery'],
        );
        $m->part(
            $gallery,
            'Gallery floor',
            $m->mesh('Gallery floor', static fn (): array => ['oak' => (new Shape)->box(0, 0, 0.16, 16.4, 11.2, 0.03)]),
            ['layer' => '80 Gallery', 'class' => 'Covering'],
        );
        $rails = $m->group($gallery, 'Balustrade', ['layer' => '82 Railings']);
        $baluster = $m->mesh(
            'Baluster',
            static fn (): array => ['stainless' => (new Shape)->cylinder(0, 0, 0.16, 0.012, 0.95, $m->sides(8))],
        );
        for ($at = 0; $at < 70; $at++) {
            $m->part($rails, 'Baluster', $baluster, ['layer' => '82 Railings', 'class' => 'Member'], [-8.2 + ($at * 16.4) / 69, -5.6, 0.0]);
        }
        for ($at = 0; $at < 46; $at++) {
            $m->part($rails, 'Baluster', $baluster, ['layer' => '82 Railings', 'class' => 'Member'], [-8.2, -5.6 + ($at * 11.2) / 45, 0.0]);
        }
        $m->part(
            $rails,
            'Handrail',
            $m->mesh(
                'Gallery handrail',
                static fn (): array => [
                    'oak' => (new Shape)->tube([[8.2, -5.6, 1.13], [-8.2, -5.6, 1.13], [-8.2, 5.6, 1.13]], 0.035, $m->sides(12)),
                ],
            ),
            ['layer' => '82 Railings', 'class' => 'Railing'],
        );
        $lounger = $m->mesh('Lounger', static function () use ($m): array {
            $slats = new Shape;
            for ($at = 0; $at < 14; $at++) {
                $slats->box(0, -0.9 + $at * 0.13, $at < 9 ? 0.32 : 0.32 + ($at - 8) * 0.09, 0.62, 0.11, 0.025);
            }

            return [
                'oak' => $slats,
                'stainless' => (new Shape)
                    ->tube([[-0.33, -0.95, 0.3], [-0.33, 0.95, 0.3]], 0.02, $m->sides(6))
                    ->tube([[0.33, -0.95, 0.3], [0.33, 0.95, 0.3]], 0.02, $m->sides(6))
                    ->box(-0.33, -0.7, 0.15, 0.03, 0.03, 0.3)
                    ->box(0.33, -0.7, 0.15, 0.03, 0.03, 0.3)
                    ->box(-0.33, 0.6, 0.15, 0.03, 0.03, 0.3)
                    ->box(0.33, 0.6, 0.15, 0.03, 0.03, 0.3),
                'fabric cream' => (new Shape)->box(0, 0.72, 0.82, 0.5, 0.3, 0.07),
            ];
        });
        for ($at = 0; $at < 10; $at++) {
            $m->part(
                $gallery,
                'Lounger.'.str_pad((string) $at, 3, '0', STR_PAD_LEFT),
                $lounger,
                ['layer' => '83 Furniture', 'class' => 'Furniture'],
                [-6.6 + ($at % 5) * 1.7, -3.6 + intdiv($at, 5) * 3.4, 0.18],
                M_PI,
            );
        }
        self::planters($m, $gallery, [[6.4, -4.6, 0.18], [6.4, 3.6, 0.18], [3.2, 4.6, 0.18]]);
    }

    /** @param list<array{float, float, float}> $places */
    private static function planters(Model $m, int $parent, array $places): void
    {
        $pot = $m->mesh(
            'Pot',
            static fn (): array => [
                'scheme B wall' => (new Shape)->lathe([[0, 0], [0.28, 0], [0.36, 0.55], [0.3, 0.55], [0.26, 0.1]], $m->sides(20)),
            ],
        );
        $plant = $m->mesh('Pot plant', static function () use ($m): array {
            $leaves = new Shape;
            $dice = new Dice(77);
            for ($at = 0; $at < 9; $at++) {
                $leaves->ball(
                    $dice->between(-0.28, 0.28),
                    $dice->between(-0.28, 0.28),
                    0.7 + $at * 0.09,
                    $dice->between(0.14, 0.26),
                    $m->sides(8),
                    1.2,
                );
            }

            return ['leaf dark' => $leaves];
        });
        foreach ($places as $at) {
            $planter = $m->group($parent, 'Planter', ['layer' => '83 Furniture'], $at);
            $m->part($planter, 'Pot', $pot, ['layer' => '83 Furniture']);
            $m->part($planter, 'Plant', $plant, ['layer' => '91 Planting']);
        }
    }

    private static function cafe(Model $m, int $cafe): void
    {
        $m->part(
            $cafe,
            'Counter',
            $m->mesh(
                'Counter',
                static fn (): array => [
                    'oak' => (new Shape)->box(0, -2.2, 0.55, 6, 0.7, 1.1),
                    'coping stone' => (new Shape)->box(0, -2.2, 1.13, 6.2, 0.85, 0.06),
                ],
            ),
            ['layer' => '81 Cafe', 'class' => 'Furniture'],
        );
        $m->part(
            $cafe,
            'Back shelf',
            $m->mesh(
                'Back shelf',
                static fn (): array => [
                    'oak' => (new Shape)
                        ->box(0, -3.4, 1.0, 6, 0.35, 0.05)
                        ->box(0, -3.4, 1.5, 6, 0.35, 0.05)
                        ->box(0, -3.4, 2.0, 6, 0.35, 0.05)
                        ->box(0, -3.55, 1.1, 6, 0.04, 2.2),
                ],
            ),
            ['layer' => '81 Cafe', 'class' => 'Furniture'],
        );
        $cup = $m->mesh(
            'Cup',
            static fn (): array => [
                'lane white' => (new Shape)->lathe([[0, 0], [0.03, 0], [0.045, 0.09], [0.04, 0.09], [0.026, 0.01]], $m->sides(12)),
            ],
        );
        for ($at = 0; $at < 30; $at++) {
            $m->part($cafe, 'Cup', $cup, $at % 7 === 3 ? [] : ['layer' => '81 Cafe'], [
                -2.6 + ($at % 15) * 0.36,
                -3.4,
                1.03 + 0.5 * intdiv($at, 15),
            ]);
        }
        $machine = $m->mesh(
            'Coffee machine',
            static fn (): array => [
                'stainless' => (new Shape)
                    ->box(0, 0, 0.22, 0.8, 0.5, 0.44)
                    ->tube([[-0.2, -0.3, 0.2], [-0.2, -0.1, 0.2]], 0.03, $m->sides(10))
                    ->tube([[0.2, -0.3, 0.2], [0.2, -0.1, 0.2]], 0.03, $m->sides(10)),
                'rubber black' => (new Shape)->box(0, -0.2, 0.03, 0.7, 0.3, 0.06),
            ],
        );
        $m->part($cafe, 'Mesh_0412', $machine, ['layer' => '81 Cafe'], [1.8, -2.2, 1.16], M_PI);
        $table = $m->mesh(
            'Cafe table',
            static fn (): array => [
                'oak' => (new Shape)->cylinder(0, 0, 0.72, 0.42, 0.03, $m->sides(28)),
                'rubber black' => (new Shape)
                    ->cylinder(0, 0, 0, 0.24, 0.02, $m->sides(20))
                    ->cylinder(0, 0, 0.02, 0.03, 0.7, $m->sides(8)),
            ],
        );
        $chair = $m->mesh('Cafe chair', static function () use ($m): array {
            $legs = new Shape;
            foreach ([[-0.2, -0.2], [0.2, -0.2], [-0.2, 0.2], [0.2, 0.2]] as [$x, $y]) {
                $legs->tube([[$x * 1.15, $y * 1.15, 0.0], [$x, $y, 0.45]], 0.014, $m->sides(6));
            }
            $legs->tube([[-0.2, 0.2, 0.45], [-0.2, 0.25, 0.85], [0.2, 0.25, 0.85], [0.2, 0.2, 0.45]], 0.014, $m->sides(6));

            return [
                'rubber black' => $legs,
                'seat ochre' => (new Shape)->box(0, 0, 0.46, 0.42, 0.42, 0.03)->box(0, 0.24, 0.74, 0.36, 0.02, 0.16),
            ];
        });
        $lamp = $m->mesh(
            'Pendant',
            static fn (): array => [
                'brass lamp' => (new Shape)->lathe(
                    [[0.22, 0], [0.2, 0.06], [0.06, 0.2], [0.03, 0.26], [0.008, 0.26], [0.008, 1.3]],
                    $m->sides(20),
                ),
                'lamp glow' => (new Shape)->ball(0, 0, 0.05, 0.06, $m->sides(12)),
            ],
        );
        for ($at = 0; $at < 6; $at++) {
            $place = [-3.0 + ($at % 3) * 2.3, $at < 3 ? 0.2 : 2.1, 0.0];
            $set = $m->group($cafe, 'TableSet.'.str_pad((string) $at, 3, '0', STR_PAD_LEFT), ['layer' => '81 Cafe'], $place, $at * 0.5);
            $m->part($set, 'Table', $table, ['layer' => '81 Cafe', 'class' => 'Furniture']);
            for ($seat = 0; $seat < 4; $seat++) {
                $angle = ($seat * M_PI) / 2;
                $m->part(
                    $set,
                    'Chair',
                    $chair,
                    ['layer' => '81 Cafe', 'class' => 'Furniture'],
                    [0.72 * sin($angle), -0.72 * cos($angle) * -1, 0.0],
                    -$angle,
                );
            }
            $m->part($cafe, 'Pendant', $lamp, ['layer' => '95 Lights', 'class' => 'LightFixture'], [$place[0], $place[1], 2.4]);
        }
        self::planters($m, $cafe, [[-4.4, -2.4, 0.0], [4.4, -2.4, 0.0], [5.4, 2.6, 0.0]]);
    }

    private static function lights(Model $m, int $lights): void
    {
        $fitting = $m->mesh(
            'Hall light',
            static fn (): array => [
                'alu frame' => (new Shape)->lathe(
                    [[0.34, 0], [0.34, 0.05], [0.2, 0.2], [0.05, 0.26], [0.008, 0.26], [0.008, 1.9]],
                    $m->sides(24),
                ),
                'lamp glow' => (new Shape)->cylinder(0, 0, -0.005, 0.32, 0.02, $m->sides(24)),
            ],
        );
        for ($bay = 0; $bay < Structure::BAYS; $bay++) {
            foreach ([0.3, 0.5, 0.7] as $index => $across) {
                $place = [Structure::archX($bay) + Structure::BAY / 2, -17 + 34 * $across, Structure::archZ($across) - 1.6];
                $m->part(
                    $lights,
                    "Light fitting $bay$index",
                    $fitting,
                    ['layer' => '95 Lights', 'class' => 'LightFixture', 'watt' => 120],
                    $place,
                );
                if ($index === 1) {
                    $m->lamp($lights, "Lamp $bay", [$place[0], $place[1], $place[2] - 0.1], 'point', 900);
                }
            }
        }
        $m->lamp($lights, 'Sun', [40.0, -30.0, 50.0], 'directional', 3);
    }

    private static function finishes(Model $m, int $group, string $scheme): void
    {
        $layer = ['layer' => "96 Finishes $scheme", 'class' => 'Covering', 'scheme' => $scheme];
        $wall = $m->mesh(
            "Wall tile field $scheme",
            static fn (): array => ["scheme $scheme wall" => (new Shape)->box(0, 0, 1.05, 0.78, 0.02, 2.1)],
        );
        $floor = $m->mesh(
            "Floor field $scheme",
            static fn (): array => ["scheme $scheme floor" => (new Shape)->box(0, 0, 0.012, 1.96, 1.96, 0.02)],
        );
        for ($at = 0; $at < 20; $at++) {
            $m->part($group, "WT-$scheme-$at", $wall, $layer, [11.4 + $at * 0.8, 5.9, 0.0]);
            $m->part($group, "WT-$scheme-N$at", $wall, $layer, [11.4 + $at * 0.8, 16.95, 0.0]);
        }
        for ($at = 0; $at < 40; $at++) {
            // One tile of scheme B was filed with scheme A.
            $m->part($group, "FT-$scheme-$at", $floor, $scheme === 'B' && $at === 17 ? ['layer' => '96 Finishes A'] + $layer : $layer, [
                11.95 + ($at % 8) * 1.98,
                7.05 + intdiv($at, 8) * 1.98,
                0.0,
            ]);
        }
    }
}
