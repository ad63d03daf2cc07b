<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** The racing basin with lanes, ropes and blocks, the teaching pool and the whirlpool. */
final class Pools
{
    public static function build(Model $m, int $parent): void
    {
        $pools = $m->group($parent, 'Pools', ['level' => 'Pool level']);
        self::basin($m, $m->group($pools, 'Basin 25m', ['layer' => '40 Basins'], [-4.0, 0.0, 0.0]), 'Racing', 25.0, 12.5, 1.9);
        self::basin($m, $m->group($pools, 'Basin teaching', ['layer' => '40 Basins'], [17.0, -5.5, 0.0]), 'Teaching', 7.8, 6.8, 0.9);
        self::lanes($m, $m->group($pools, 'Lanes', ['layer' => '41 Lane ropes'], [-4.0, 0.0, 0.0]));
        self::equipment($m, $m->group($pools, 'Pool equipment', ['layer' => '43 Pool equipment'], [-4.0, 0.0, 0.0]));
        self::whirlpool($m, $m->group($pools, 'Whirlpool', ['layer' => '40 Basins'], [24.2, -5.0, 0.0]));
    }

    private static function basin(Model $m, int $group, string $name, float $length, float $width, float $depth): void
    {
        $layer = ['layer' => '40 Basins', 'class' => 'Wall'];
        $m->part(
            $group,
            "{$name}_floor",
            $m->mesh(
                "$name floor",
                static fn (): array => ['pool tile' => (new Shape)->box(0, 0, -$depth - 0.1, $length + 0.6, $width + 0.6, 0.2)],
            ),
            ['class' => 'Slab'] + $layer,
        );
        foreach (
            [
                ['N', 0, $width / 2 + 0.15, $length + 0.6, 0.3],
                ['S', 0, -$width / 2 - 0.15, $length + 0.6, 0.3],
                ['W', -$length / 2 - 0.15, 0, 0.3, $width],
                ['E', $length / 2 + 0.15, 0, 0.3, $width],
            ] as [$side, $x, $y, $w, $d]
        ) {
            $m->part(
                $group,
                "{$name}_wall_$side",
                $m->mesh(
                    "$name wall $side",
                    static fn (): array => ['pool tile' => (new Shape)->box($x, $y, -$depth / 2, $w, $d, $depth)],
                ),
                $layer,
            );
            $long = $w > $d;
            $m->part(
                $group,
                "Coping $side",
                $m->mesh(
                    "$name coping $side",
                    static fn (): array => [
                        'coping stone' => (new Shape)->box(
                            $x + ($long ? 0 : 0.08 * ($x <=> 0)),
                            $y + ($long ? 0.08 * ($y <=> 0) : 0),
                            0.03,
                            $long ? $w + 0.3 : 0.46,
                            $long ? 0.46 : $d,
                            0.12,
                        ),
                    ],
                ),
                ['layer' => '42 Coping', 'class' => 'Covering'],
            );
            $m->part(
                $group,
                "Grille $side",
                $m->mesh("$name grille $side", static function () use ($x, $y, $w, $d, $long): array {
                    $grille = new Shape;
                    $count = (int) (max($w, $d) / 0.5);
                    for ($at = 0; $at < $count; $at++) {
                        $offset = ($at + 0.5 - $count / 2) * 0.5;
                        $grille->box(
                            $x + ($long ? $offset : 0.38 * ($x <=> 0)),
                            $y + ($long ? 0.38 * ($y <=> 0) : $offset),
                            0.02,
                            $long ? 0.44 : 0.12,
                            $long ? 0.12 : 0.44,
                            0.05,
                        );
                    }

                    return ['fabric cream' => $grille];
                }),
                ['layer' => '42 Coping'],
            );
        }
        $m->part(
            $group,
            "Water $name",
            $m->mesh("$name water", static fn (): array => ['water' => (new Shape)->sheet(0, 0, -0.07, $length, $width)]),
            ['layer' => '44 Water'],
        );
        $ladder = $m->mesh('Ladder', static function () use ($m): array {
            $shape = new Shape;
            foreach ([-0.25, 0.25] as $x) {
                $shape->tube(
                    [[$x, 0.7, 0.0], [$x, 0.7, 0.6], [$x, 0.6, 0.8], [$x, 0.3, 0.85], [$x, 0.08, 0.7], [$x, 0.0, 0.4], [$x, 0.0, -1.2]],
                    0.022,
                    $m->sides(8),
                );
            }
            foreach ([-0.2, -0.5, -0.8, -1.1] as $z) {
                $shape->box(0, 0, $z, 0.5, 0.1, 0.03);
            }

            return ['stainless' => $shape];
        });
        foreach ([[-$length * 0.38, 1], [$length * 0.38, 1], [-$length * 0.38, -1], [$length * 0.38, -1]] as $index => [$x, $side]) {
            $m->part(
                $group,
                'Ladder.'.$index,
                $ladder,
                ['layer' => '43 Pool equipment', 'class' => 'Stair'],
                [$x, $side * ($width / 2 - 0.06), 0.0],
                $side > 0 ? 0.0 : M_PI,
            );
        }
    }

    private static function lanes(Model $m, int $lanes): void
    {
        $sides = $m->sides(10);
        $red = $m->mesh('Float red', static fn (): array => ['lane red' => (new Shape)->ball(0, 0, 0, 0.085, $sides, 0.9)]);
        $white = $m->mesh('Float white', static fn (): array => ['lane white' => (new Shape)->ball(0, 0, 0, 0.085, $sides, 0.9)]);
        $cable = $m->mesh(
            'Lane cable',
            static fn (): array => ['stainless' => (new Shape)->tube([[-12.5, 0.0, 0.0], [12.5, 0.0, 0.0]], 0.012, 5)],
        );
        $line = $m->mesh(
            'Lane line',
            static fn (): array => [
                'pool tile dark' => (new Shape)
                    ->sheet(0, 0, 0, 20.6, 0.25)
                    ->sheet(-10.3, 0, 0, 0.25, 1)
                    ->sheet(10.3, 0, 0, 0.25, 1),
            ],
        );
        for ($lane = 1; $lane <= 5; $lane++) {
            $rope = $m->group($lanes, "Lane rope $lane", ['layer' => '41 Lane ropes'], [0.0, ($lane - 3) * 2.08, -0.05]);
            $m->part($rope, 'Cable', $cable, ['layer' => '41 Lane ropes']);
            for ($at = 0; $at < 52; $at++) {
                $m->part($rope, 'Float', $at % 8 < 4 ? $red : $white, ['layer' => '41 Lane ropes'], [-12.25 + $at * 0.48, 0.0, 0.0]);
            }
        }
        for ($lane = 0; $lane < 6; $lane++) {
            $m->part(
                $lanes,
                'Lane line '.($lane + 1),
                $line,
                ['layer' => '40 Basins', 'class' => 'Covering'],
                [0.0, ($lane - 2.5) * 2.08, -1.89],
            );
        }
    }

    private static function equipment(Model $m, int $group): void
    {
        $block = $m->mesh(
            'Starting block',
            static fn (): array => [
                'stainless' => (new Shape)
                    ->cylinder(-0.1, 0, 0, 0.09, 0.6, $m->sides(12))
                    ->tube([[0.05, -0.3, 0.35], [0.22, -0.3, 0.35], [0.22, 0.3, 0.35], [0.05, 0.3, 0.35]], 0.018, $m->sides(6)),
                'fabric cream' => (new Shape)->box(-0.05, 0, 0.64, 0.62, 0.55, 0.08),
                'lane red' => (new Shape)->box(0.2, 0, 0.69, 0.08, 0.5, 0.02),
            ],
        );
        for ($lane = 0; $lane < 6; $lane++) {
            $m->part(
                $group,
                'StartBlock_'.($lane + 1),
                $block,
                ['layer' => '43 Pool equipment', 'lane' => $lane + 1],
                [-13.1, ($lane - 2.5) * 2.08, 0.09],
            );
        }
        $post = $m->mesh('Flag post', static fn (): array => ['stainless' => (new Shape)->cylinder(0, 0, 0, 0.03, 2.0, $m->sides(8))]);
        $flag = $m->mesh(
            'Pennant',
            static fn (): array => [
                'signal orange' => (new Shape)->quad([[-0.1, 0, 0], [0.0, 0, -0.3], [0.1, 0, 0], [0.0, 0, 0.0]], [0.0, -1.0, 0.0], 1, 1),
            ],
        );
        foreach ([-7.5, 7.5] as $x) {
            $line = $m->group($group, 'Backstroke flags', ['layer' => '43 Pool equipment'], [$x, 0.0, 0.0], M_PI / 2);
            foreach ([-7.2, 7.2] as $y) {
                $m->part($line, 'Post', $post, ['layer' => '43 Pool equipment'], [$y, 0.0, 0.0]);
            }
            for ($at = 0; $at < 24; $at++) {
                $m->part(
                    $line,
                    'Pennant',
                    $flag,
                    ['layer' => '43 Pool equipment'],
                    [-6.9 + $at * 0.6, 0.0, 1.9 - 0.12 * sin((M_PI * $at) / 23)],
                );
            }
        }
        $chair = $m->mesh('Lifeguard chair', static function () use ($m): array {
            $frame = new Shape;
            foreach ([[-0.35, -0.35], [0.35, -0.35], [-0.35, 0.35], [0.35, 0.35]] as [$x, $y]) {
                $frame->tube([[$x * 1.5, $y * 1.5, 0.0], [$x, $y, 1.7]], 0.03, $m->sides(8));
            }
            for ($step = 1; $step < 5; $step++) {
                $frame->box(0, -0.53 + $step * 0.04, $step * 0.35, 0.8, 0.05, 0.04);
            }

            return [
                'stainless' => $frame,
                'signal orange' => (new Shape)->box(0, 0, 1.72, 0.75, 0.75, 0.06)->box(0, 0.36, 2.1, 0.75, 0.05, 0.7),
            ];
        });
        $m->part($group, 'Component#14', $chair, ['layer' => '43 Pool equipment'], [-2.0, 8.0, 0.0], M_PI);
        $m->part($group, 'Component#15', $chair, ['layer' => '43 Pool equipment'], [6.0, 8.0, 0.0], M_PI);
        $ring = $m->mesh('Life ring', static function () use ($m): array {
            $path = [];
            $around = $m->sides(20);
            for ($at = 0; $at <= $around; $at++) {
                $path[] = [0.3 * cos((2 * M_PI * $at) / $around), 0.0, 0.3 * sin((2 * M_PI * $at) / $around)];
            }

            return ['signal orange' => (new Shape)->tube($path, 0.07, $m->sides(8))];
        });
        foreach ([[-10.0, 16.7], [2.0, 16.7], [-23.0, 12.0], [-23.0, -9.0]] as $index => [$x, $y]) {
            $m->part($group, "LifeRing ($index)", $ring, $index === 2 ? [] : ['layer' => '43 Pool equipment'], [$x, $y, 1.4]);
        }
    }

    private static function whirlpool(Model $m, int $group): void
    {
        $sides = $m->sides(36);
        $m->part(
            $group,
            'Whirl shell',
            $m->mesh(
                'Whirl shell',
                static fn (): array => [
                    'pool tile' => (new Shape)->lathe(
                        [[0, 0.1], [1.2, 0.1], [1.25, 0.5], [1.55, 0.5], [1.6, 0.85], [2.0, 0.85], [2.05, 0]],
                        $sides,
                    ),
                ],
            ),
            ['layer' => '40 Basins'],
        );
        $m->part(
            $group,
            'Whirl rim',
            $m->mesh(
                'Whirl rim',
                static fn (): array => [
                    'coping stone' => (new Shape)->lathe([[1.58, 0.84], [1.58, 0.92], [2.1, 0.92], [2.1, 0.8]], $sides),
                ],
            ),
            ['layer' => '42 Coping'],
        );
        $m->part(
            $group,
            'Water whirl',
            $m->mesh('Whirl water', static fn (): array => ['water' => (new Shape)->lathe([[1.62, 0.78], [0.0, 0.78]], $sides)]),
            ['layer' => '44 Water'],
        );
        $m->part(
            $group,
            'Steps',
            $m->mesh(
                'Whirl steps',
                static fn (): array => [
                    'coping stone' => (new Shape)->box(-2.3, 0, 0.15, 0.5, 1.4, 0.3)->box(-2.15, 0, 0.4, 0.3, 1.4, 0.3),
                ],
            ),
            ['layer' => '42 Coping'],
        );
    }
}
