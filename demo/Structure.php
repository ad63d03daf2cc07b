<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** Timber arches, purlins, bracing, slabs and the roof over them. */
final class Structure
{
    public const BAYS = 7;

    public const BAY = 7.4;

    public static function archX(int $index): float
    {
        return -26.0 + $index * self::BAY;
    }

    /** Height of the arch's axis at a place across the hall, 0 to 1. */
    public static function archZ(float $across): float
    {
        return 7.2 + 4.4 * sin($across * M_PI);
    }

    public static function build(Model $m, int $parent): void
    {
        $frame = $m->group($parent, 'Structure_Frame', ['layer' => '10 Structure', 'level' => 'Pool level']);
        self::arches($m, $frame);
        self::purlins($m, $frame);
        self::slabs($m, $m->group($parent, 'Slabs+Walls', ['layer' => '11 Slabs', 'level' => 'Pool level']));
        self::roof($m, $m->group($parent, 'ROOF', ['layer' => '20 Roof']));
    }

    private static function arches(Model $m, int $frame): void
    {
        $segments = $m->sides(26);
        $arch = $m->mesh('Glulam arch 240x900', static function () use ($segments): array {
            $path = [];
            for ($at = 0; $at <= $segments; $at++) {
                $path[] = [0.0, -17 + (34 * $at) / $segments, self::archZ($at / $segments)];
            }

            return ['glulam larch' => (new Shape)->sweep($path, [[-0.14, -0.42], [0.14, -0.42], [0.14, 0.42], [-0.14, 0.42]], false)];
        });
        $column = $m->mesh(
            'Glulam column 280x520',
            static fn (): array => ['glulam larch' => (new Shape)->box(0, 0, 3.55, 0.28, 0.52, 7.1)],
        );
        $shoe = $m->mesh(
            'Steel shoe',
            static fn (): array => [
                'stainless' => (new Shape)
                    ->box(0, 0, 0.03, 0.5, 0.7, 0.06)
                    ->box(0.17, 0, 0.3, 0.02, 0.5, 0.5)
                    ->box(-0.17, 0, 0.3, 0.02, 0.5, 0.5)
                    ->cylinder(0.16, 0.16, 0.3, 0.03, 0.04, 6)
                    ->cylinder(0.16, -0.16, 0.3, 0.03, 0.04, 6),
            ],
        );
        for ($index = 0; $index <= self::BAYS; $index++) {
            $axis = $m->group(
                $frame,
                'Axis '.($index + 1),
                ['layer' => '10 Structure', 'axis' => $index + 1],
                [self::archX($index), 0.0, 0.0],
            );
            $m->part($axis, 'RoofBeam.'.str_pad((string) $index, 3, '0', STR_PAD_LEFT), $arch, [
                'layer' => '10 Structure',
                'class' => 'Beam',
                'material' => 'GL28h larch',
            ]);
            foreach ([-17, 17] as $side) {
                $m->part(
                    $axis,
                    'Column.'.str_pad((string) ($index * 2 + ($side > 0 ? 1 : 0)), 3, '0', STR_PAD_LEFT),
                    $column,
                    ['layer' => '10 Structure', 'class' => 'Column'],
                    [0.0, (float) $side, 0.0],
                );
                $m->part($axis, 'Shoe', $shoe, ['layer' => '12 Steel', 'class' => 'Plate'], [0.0, (float) $side, 0.0]);
            }
        }
    }

    private static function purlins(Model $m, int $frame): void
    {
        $purlin = $m->mesh(
            'Purlin 120x240',
            static fn (): array => ['glulam dark' => (new Shape)->box(0, 0, 0, self::BAY - 0.28, 0.12, 0.24)],
        );
        $secondary = $m->group($frame, 'Purlins', ['layer' => '10 Structure']);
        $mark = 0;
        for ($bay = 0; $bay < self::BAYS; $bay++) {
            for ($at = 1; $at < 14; $at++) {
                $m->part(
                    $secondary,
                    'Purlin '.++$mark,
                    $purlin,
                    ['layer' => '10 Structure', 'class' => 'Beam'],
                    [self::archX($bay) + self::BAY / 2, -17 + (34 * $at) / 14, self::archZ($at / 14) + 0.34],
                );
            }
        }
        $steel = $m->group($frame, 'Bracing', ['layer' => '12 Steel']);
        foreach ([0, 3, 6] as $bay) {
            for ($at = 0; $at < 12; $at += 2) {
                foreach ([0, 1] as $way) {
                    $from = [self::archX($bay + $way), -17 + (34 * $at) / 14 + 1, self::archZ(($at + 0.4) / 14)];
                    $to = [self::archX($bay + 1 - $way), -17 + (34 * ($at + 2)) / 14 + 1, self::archZ(($at + 2.4) / 14)];
                    $mesh = $m->mesh(
                        "Rod $at/$way",
                        static fn (): array => [
                            'stainless' => (new Shape)->tube(
                                [[0.0, 0.0, 0.0], [$to[0] - $from[0], $to[1] - $from[1], $to[2] - $from[2]]],
                                0.028,
                                $m->sides(6),
                            ),
                        ],
                    );
                    $m->part($steel, 'Rod', $mesh, ['layer' => '12 Steel', 'class' => 'Member'], $from);
                }
            }
        }
    }

    private static function slabs(Model $m, int $group): void
    {
        foreach (
            [
                [-28, -16.9, -17.4, 17.4],
                [-16.9, 8.9, -17.4, -6.65],
                [-16.9, 8.9, 6.65, 17.4],
                [8.9, 12.7, -17.4, 17.4],
                [12.7, 21.3, -17.4, -9.3],
                [12.7, 21.3, -1.7, 17.4],
                [21.3, 28, -17.4, 17.4],
            ] as $index => [$x0, $x1, $y0, $y1]
        ) {
            $mesh = $m->mesh(
                "Deck field $index",
                static fn (): array => [
                    'deck tile' => (new Shape)->box(($x0 + $x1) / 2, ($y0 + $y1) / 2, -0.15, $x1 - $x0, $y1 - $y0, 0.3),
                ],
            );
            $m->part($group, 'Deck_'.($index + 1), $mesh, ['layer' => '11 Slabs', 'class' => 'Slab', 'level' => 'Pool level']);
        }
        $wall = $m->mesh('Plant wall long', static fn (): array => ['concrete' => (new Shape)->box(0, 0, -2.4, 56, 0.3, 4.2)]);
        $end = $m->mesh('Plant wall short', static fn (): array => ['concrete' => (new Shape)->box(0, 0, -2.4, 0.3, 34.8, 4.2)]);
        $m->part($group, 'Wall_N', $wall, ['layer' => '11 Slabs', 'class' => 'Wall', 'level' => 'Plant level'], [0.0, 17.25, 0.0]);
        $m->part($group, 'Wall_S', $wall, ['layer' => '11 Slabs', 'class' => 'Wall', 'level' => 'Plant level'], [0.0, -17.25, 0.0]);
        $m->part($group, 'Wall_W', $end, ['layer' => '11 Slabs', 'class' => 'Wall', 'level' => 'Plant level'], [-27.85, 0.0, 0.0]);
        $m->part($group, 'Wall_E', $end, ['layer' => '11 Slabs', 'class' => 'Wall', 'level' => 'Plant level'], [27.85, 0.0, 0.0]);
        $base = $m->mesh('Base slab', static fn (): array => ['concrete' => (new Shape)->box(0, 0, -4.65, 56.4, 35.2, 0.3)]);
        $m->part($group, 'Base slab', $base, ['layer' => '11 Slabs', 'class' => 'Slab', 'level' => 'Plant level']);
    }

    private static function roof(Model $m, int $roof): void
    {
        $cuts = max(1, (int) round(3 * $m->detail));
        for ($strip = 0; $strip < 14; $strip++) {
            foreach (['deck' => ['roof deck', 0.5, 0.1], 'felt' => ['roof felt', 0.68, 0.16]] as $kind => [$material, $lift, $thick]) {
                $mesh = $m->mesh("Roof $kind $strip", static function () use ($strip, $cuts, $material, $lift, $thick): array {
                    $path = [];
                    for ($at = 0; $at <= $cuts; $at++) {
                        $t = ($strip + $at / $cuts) / 14;
                        $path[] = [0.0, -17 + 34 * $t, self::archZ($t) + $lift];
                    }

                    return [
                        $material => (new Shape)->sweep(
                            $path,
                            [[-3.68, -$thick / 2], [3.68, -$thick / 2], [3.68, $thick / 2], [-3.68, $thick / 2]],
                            false,
                        ),
                    ];
                });
                for ($bay = 0; $bay < self::BAYS; $bay++) {
                    // The ridge is a skylight: glass stands in for deck and felt there.
                    if ($strip >= 6 && $strip <= 7 && $bay % 2 === 1) {
                        continue;
                    }
                    $m->part(
                        $roof,
                        $kind === 'deck' ? "Deck panel $strip-$bay" : "Mesh_$strip$bay",
                        $mesh,
                        ['layer' => $kind === 'deck' ? '20 Roof' : '21 Roof skin', 'class' => 'Covering'],
                        [self::archX($bay) + self::BAY / 2, 0.0, 0.0],
                    );
                }
            }
        }
        $light = $m->mesh('Skylight', static function (): array {
            $path = [];
            for ($at = 6; $at <= 8; $at++) {
                $path[] = [0.0, -17 + (34 * $at) / 14, self::archZ($at / 14) + 0.7];
            }
            $frame = new Shape;
            for ($bar = -3; $bar <= 3; $bar++) {
                $frame->box($bar * 1.22, 0, self::archZ(0.5) + 0.66, 0.06, 4.9, 0.14);
            }

            return [
                'clear glass' => (new Shape)->sweep($path, [[-3.66, -0.03], [3.66, -0.03], [3.66, 0.03], [-3.66, 0.03]], false),
                'alu frame' => $frame,
            ];
        });
        foreach ([1, 3, 5] as $bay) {
            $m->part(
                $roof,
                "Skylight_$bay",
                $light,
                ['layer' => '30 Glazing', 'class' => 'Window'],
                [self::archX($bay) + self::BAY / 2, 0.0, 0.0],
            );
        }
    }
}
