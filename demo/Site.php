<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** Lawn, paving, trees, hedges, benches and cycle stands around the hall. */
final class Site
{
    public static function build(Model $m, int $parent, int $seed): void
    {
        $site = $m->group($parent, 'Site', ['layer' => '90 Site', 'level' => 'Site']);
        foreach ([[0, -30.7, 100, 26.6], [0, 30.7, 100, 26.6], [-39, 0, 22, 34.8], [39, 0, 22, 34.8]] as $index => [$x, $y, $w, $d]) {
            $m->part(
                $site,
                "Ground_$index",
                $m->mesh("Ground $index", static fn (): array => ['lawn' => (new Shape)->box($x, $y, -0.4, $w, $d, 0.3)]),
                ['layer' => '90 Site', 'class' => 'Slab'],
            );
        }
        $slab = $m->mesh('Paving slab', static fn (): array => ['paving' => (new Shape)->box(0, 0, -0.22, 1.92, 1.92, 0.08)]);
        $paving = $m->group($site, 'Paving', ['layer' => '92 Paving']);
        for ($at = 0; $at < 56; $at++) {
            $m->part(
                $paving,
                'Slab.'.str_pad((string) $at, 3, '0', STR_PAD_LEFT),
                $slab,
                ['layer' => '92 Paving', 'class' => 'Covering'],
                [-27 + ($at % 28) * 2.0, -18.9 - 2 * intdiv($at, 28), 0.0],
            );
        }
        for ($at = 0; $at < 36; $at++) {
            $m->part(
                $paving,
                'Slab.'.str_pad((string) ($at + 56), 3, '0', STR_PAD_LEFT),
                $slab,
                ['layer' => '92 Paving', 'class' => 'Covering'],
                [29.4 + 2 * intdiv($at, 18), -17 + ($at % 18) * 2.0, 0.0],
            );
        }
        self::planting($m, $m->group($site, 'Planting', ['layer' => '91 Planting']), $seed);
        self::furniture($m, $m->group($site, 'Site furniture', ['layer' => '93 Site furniture']));
    }

    private static function planting(Model $m, int $group, int $seed): void
    {
        $dice = new Dice(4001 + $seed);
        for ($variant = 0; $variant < 4; $variant++) {
            $name = $seed === 0 ? "Tree $variant" : "Tree $seed.$variant";
            $trees[] = $m->mesh($name, static function () use ($m, $dice): array {
                $crown = new Shape;
                $height = $dice->between(2.6, 3.8);
                for ($at = 0; $at < 9; $at++) {
                    $crown->ball(
                        $dice->between(-1.2, 1.2),
                        $dice->between(-1.2, 1.2),
                        $height + $dice->between(0, 2.2),
                        $dice->between(0.8, 1.35),
                        $m->sides(12),
                        0.9,
                    );
                }

                return [
                    'leaf' => $crown,
                    'bark' => (new Shape)
                        ->lathe([[0.24, 0], [0.16, 0.6], [0.13, $height]], $m->sides(10))
                        ->tube([[0.0, 0.0, $height - 0.7], [0.7, 0.3, $height + 0.5]], 0.06, $m->sides(6))
                        ->tube([[0.0, 0.0, $height - 0.9], [-0.6, 0.5, $height + 0.4]], 0.06, $m->sides(6)),
                ];
            });
        }
        $bush = $m->mesh($seed === 0 ? 'Bush' : "Bush $seed", static function () use ($m, $dice): array {
            $leaves = new Shape;
            for ($at = 0; $at < 5; $at++) {
                $leaves->ball(
                    $dice->between(-0.5, 0.5),
                    $dice->between(-0.4, 0.4),
                    $dice->between(0.25, 0.55),
                    $dice->between(0.32, 0.5),
                    $m->sides(9),
                    0.9,
                );
            }

            return ['leaf dark' => $leaves];
        });
        for ($at = 0; $at < 26; $at++) {
            $size = $dice->between(0.85, 1.35);
            $m->part(
                $group,
                $at % 9 === 4 ? '' : "Tree#$at",
                $trees[$at % 4],
                ['layer' => '91 Planting', 'species' => ['hornbeam', 'field maple', 'birch', 'lime'][$at % 4]],
                [
                    -44 + ($at % 13) * 7.1 + $dice->between(-1.5, 1.5),
                    $at < 13 ? 25 + $dice->between(-2, 7) : -28 - $dice->between(-1, 8),
                    -0.25,
                ],
                $dice->between(0.1, 6),
                [$size, $size, $size],
            );
        }
        for ($at = 0; $at < 70; $at++) {
            $size = $dice->between(0.8, 1.3);
            $m->part(
                $group,
                'Bush',
                $bush,
                ['layer' => '91 Planting'],
                [-27.5 + ($at % 35) * 1.62, $at < 35 ? 18.9 : -24.3, -0.25],
                $dice->between(0.1, 6),
                [$size, $size, $size],
            );
        }
    }

    private static function furniture(Model $m, int $group): void
    {
        $rack = $m->mesh(
            'Cycle stand',
            static fn (): array => [
                'stainless' => (new Shape)->tube(
                    [[-0.4, 0.0, -0.25], [-0.4, 0.0, 0.5], [-0.3, 0.0, 0.62], [0.3, 0.0, 0.62], [0.4, 0.0, 0.5], [0.4, 0.0, -0.25]],
                    0.026,
                    $m->sides(8),
                ),
            ],
        );
        for ($at = 0; $at < 14; $at++) {
            $m->part($group, 'Cycle stand', $rack, ['layer' => '93 Site furniture'], [32.5, -14 + $at * 0.9, 0.0]);
        }
        $bench = $m->mesh('Park bench', static function (): array {
            $slats = new Shape;
            for ($at = 0; $at < 5; $at++) {
                $slats->box(0, -0.2 + $at * 0.1, 0.2, 1.8, 0.08, 0.04);
            }
            for ($at = 0; $at < 3; $at++) {
                $slats->box(0, 0.3 + $at * 0.03, 0.38 + $at * 0.13, 1.8, 0.03, 0.1);
            }

            return [
                'oak' => $slats,
                'rubber black' => (new Shape)->box(-0.75, 0.05, -0.02, 0.06, 0.5, 0.4)->box(0.75, 0.05, -0.02, 0.06, 0.5, 0.4),
            ];
        });
        for ($at = 0; $at < 8; $at++) {
            $m->part($group, "Bench_$at", $bench, ['layer' => '93 Site furniture'], [-24.0 + $at * 6.8, -22.6, 0.0], M_PI);
        }
        $light = $m->mesh(
            'Bollard light',
            static fn (): array => [
                'rubber black' => (new Shape)->cylinder(0, 0, -0.25, 0.06, 1.0, $m->sides(12)),
                'lamp glow' => (new Shape)->cylinder(0, 0, 0.75, 0.06, 0.12, $m->sides(12)),
            ],
        );
        for ($at = 0; $at < 14; $at++) {
            $m->part($group, 'Bollard', $light, ['layer' => '95 Lights', 'class' => 'LightFixture'], [-27.0 + $at * 4.2, -23.4, 0.0]);
        }
    }
}
