<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** Pumps, filters, pipes and cabinets below the pools. */
final class PlantLevel
{
    private const FLOOR = -4.5;

    public static function build(Model $m, int $parent): void
    {
        $plant = $m->group($parent, 'Plant level', ['layer' => '70 Plant', 'level' => 'Plant level'], [0.0, 0.0, self::FLOOR]);
        self::pumps($m, $m->group($plant, 'Pumps', ['layer' => '71 Pumps']));
        self::filters($m, $m->group($plant, 'Filters', ['layer' => '72 Filters']));
        self::pipes($m, $m->group($plant, 'Pipework', ['layer' => '73 Pipes']));
        self::cabinets($m, $m->group($plant, 'Electrical', ['layer' => '74 Electrical']));
    }

    private static function pumps(Model $m, int $group): void
    {
        $base = $m->mesh('Pump base', static fn (): array => ['concrete' => (new Shape)->box(0, 0, 0.08, 1.3, 0.6, 0.16)]);
        $volute = $m->mesh(
            'Pump volute',
            static fn (): array => [
                'pipe blue' => (new Shape)
                    ->ball(-0.4, 0, 0.5, 0.28, $m->sides(20), 0.95)
                    ->cylinder(-0.4, 0, 0.7, 0.1, 0.35, $m->sides(16)),
            ],
        );
        $motor = $m->mesh('Pump motor', static function () use ($m): array {
            $body = (new Shape)->tube([[-0.1, 0.0, 0.5], [0.55, 0.0, 0.5]], 0.2, $m->sides(20));
            for ($fin = 0; $fin < 10; $fin++) {
                $angle = (M_PI * 2 * $fin) / 10;
                $body->box(
                    0.22,
                    0.21 * cos($angle),
                    0.5 + 0.21 * sin($angle),
                    0.55,
                    0.02 + 0.03 * abs(sin($angle)),
                    0.02 + 0.03 * abs(cos($angle)),
                );
            }

            return ['motor green' => $body, 'rubber black' => (new Shape)->box(0.2, 0, 0.76, 0.2, 0.16, 0.12)];
        });
        $flange = $m->mesh('Flange', static fn (): array => ['vessel grey' => (new Shape)->cylinder(0, 0, 0, 0.17, 0.04, $m->sides(20))]);
        for ($at = 0; $at < 10; $at++) {
            $pump = $m->group(
                $group,
                sprintf('P-%02d', $at + 1),
                ['layer' => '71 Pumps', 'class' => 'Pump', 'power kW' => [5.5, 7.5, 11][$at % 3], 'flow m3/h' => 60 + 15 * ($at % 4)],
                [-24.0 + $at * 2.1, -14.0, 0.0],
                M_PI / 2,
            );
            foreach (
                [
                    'Base' => [$base, [0.0, 0.0, 0.0]],
                    'Volute' => [$volute, [0.0, 0.0, 0.0]],
                    'Motor' => [$motor, [0.0, 0.0, 0.0]],
                    'Flange' => [$flange, [-0.4, 0.0, 1.05]],
                ] as $name => [$mesh, $place]
            ) {
                $m->part($pump, $name, $mesh, ['layer' => '71 Pumps'], $place);
            }
        }
    }

    private static function filters(Model $m, int $group): void
    {
        $profile = [
            [0, 0.5],
            [0.5, 0.52],
            [0.85, 0.68],
            [0.95, 0.95],
            [0.95, 2.3],
            [0.85, 2.57],
            [0.5, 2.73],
            [0.15, 2.76],
            [0.15, 2.95],
            [0, 2.95],
        ];
        // An exporter wrote this mesh once per filter; only the name differs.
        for ($at = 0; $at < 10; $at++) {
            $vessel = $m->mesh("FilterVessel_$at", static fn (): array => ['vessel grey' => (new Shape)->lathe($profile, $m->sides(32))]);
            $legs = $m->mesh('Filter legs', static function () use ($m): array {
                $shape = new Shape;
                foreach ([0, 1, 2, 3] as $leg) {
                    $shape->cylinder(0.7 * cos(($leg * M_PI) / 2 + 0.8), 0.7 * sin(($leg * M_PI) / 2 + 0.8), 0, 0.06, 0.75, $m->sides(8));
                }

                return ['vessel grey' => $shape];
            });
            $valve = $m->mesh(
                'Valve',
                static fn (): array => [
                    'pipe red' => (new Shape)
                        ->ball(0, 0, 0, 0.13, $m->sides(14))
                        ->cylinder(0, 0, 0.1, 0.02, 0.2, $m->sides(8))
                        ->lathe([[0.13, 0.3], [0.15, 0.32], [0.13, 0.34], [0.11, 0.32], [0.13, 0.3]], $m->sides(16)),
                ],
            );
            $filter = $m->group(
                $group,
                'F-'.($at + 1),
                ['layer' => '72 Filters', 'class' => 'Filter', 'media' => $at < 6 ? 'sand' : 'glass'],
                [-22.0 + $at * 2.4, 12.6, 0.0],
            );
            $m->part($filter, 'Vessel', $vessel, ['layer' => '72 Filters']);
            $m->part($filter, 'Legs', $legs, ['layer' => '72 Filters']);
            foreach ([0.7, 1.3, 1.9] as $z) {
                $m->part($filter, 'Valve', $valve, ['layer' => '75 Valves'], [0.0, -1.1, $z]);
            }
        }
    }

    private static function pipes(Model $m, int $group): void
    {
        $clip = $m->mesh(
            'Pipe clip',
            static fn (): array => [
                'stainless' => (new Shape)
                    ->box(0, 0, 0.2, 0.03, 0.3, 0.02)
                    ->box(0, -0.13, 0.1, 0.03, 0.02, 0.2)
                    ->box(0, 0.13, 0.1, 0.03, 0.02, 0.2)
                    ->cylinder(0, 0, 0.2, 0.01, 0.5, 6),
            ],
        );
        $systems = ['Flow' => ['pipe blue', 3.0, 0.11], 'Return' => ['pipe red', 3.35, 0.11], 'Drain' => ['vessel grey', 2.6, 0.14]];
        foreach ($systems as $system => [$material, $z, $radius]) {
            $run = $m->group($group, "PIPE_$system", ['layer' => '73 Pipes', 'system' => $system]);
            $pipe = $m->mesh(
                "Pipe $system 3m",
                static fn (): array => [$material => (new Shape)->tube([[-1.5, 0.0, 0.0], [1.5, 0.0, 0.0]], $radius, $m->sides(16))],
            );
            $elbow = $m->mesh("Elbow $system", static function () use ($m, $material, $radius): array {
                $path = [];
                $cuts = $m->sides(8);
                for ($at = 0; $at <= $cuts; $at++) {
                    $angle = ((M_PI / 2) * $at) / $cuts;
                    $path[] = [0.3 * sin($angle), 0.3 * (1 - cos($angle)), 0.0];
                }

                return [$material => (new Shape)->tube($path, $radius, $m->sides(16))];
            });
            $joint = $m->mesh(
                "Collar $system",
                static fn (): array => [
                    $material => (new Shape)->tube([[-0.06, 0.0, 0.0], [0.06, 0.0, 0.0]], $radius * 1.25, $m->sides(16)),
                ],
            );
            $lane = ['Flow' => 0.0, 'Return' => 1.0, 'Drain' => 2.0][$system];
            foreach ([-11.0, 9.4] as $main => $y) {
                for ($at = 0; $at < 15; $at++) {
                    $place = [-21.0 + 3 * $at, $y + 0.5 * $lane, $z];
                    $m->part(
                        $run,
                        "Pipe $main.$at",
                        $pipe,
                        ['layer' => '73 Pipes', 'class' => 'PipeSegment', 'diameter' => (int) (2000 * $radius)],
                        $place,
                    );
                    $m->part($run, 'Collar', $joint, ['layer' => '73 Pipes', 'class' => 'PipeFitting'], [$place[0] + 1.5, $place[1], $z]);
                    if ($at % 2 === 0) {
                        $m->part($run, 'Clip', $clip, $at === 6 ? ['layer' => '61 Lockers'] : ['layer' => '73 Pipes'], [
                            $place[0],
                            $place[1],
                            $z,
                        ]);
                    }
                }
                for ($at = 0; $at < 10; $at++) {
                    $m->part(
                        $run,
                        'Elbow',
                        $elbow,
                        ['layer' => '73 Pipes', 'class' => 'PipeFitting'],
                        [-22.3 + 2.4 * $at + 0.2 * $lane, $y + 0.5 * $lane, $z],
                        $y > 0 ? 0.0 : M_PI,
                    );
                    $drop = $m->mesh(
                        "Pipe $system drop",
                        static fn (): array => [
                            $material => (new Shape)->tube([[0.0, 0.0, 0.0], [0.0, 1.6, 0.0]], $radius * 0.8, $m->sides(12)),
                        ],
                    );
                    $m->part(
                        $run,
                        "Branch $at",
                        $drop,
                        ['layer' => '73 Pipes', 'class' => 'PipeSegment'],
                        [-22.3 + 2.4 * $at + 0.2 * $lane + ($y > 0 ? 0.3 : -0.3), $y + 0.5 * $lane + ($y > 0 ? 0.3 : -0.3), $z],
                        $y > 0 ? 0.0 : M_PI,
                    );
                }
            }
        }
    }

    private static function cabinets(Model $m, int $group): void
    {
        $cabinet = $m->mesh(
            'Cabinet',
            static fn (): array => [
                'vessel grey' => (new Shape)->box(0, 0, 1.05, 0.8, 0.5, 2.1),
                'rubber black' => (new Shape)->box(0, 0, 0.05, 0.82, 0.52, 0.1)->box(0.3, -0.26, 1.2, 0.03, 0.03, 0.25),
            ],
        );
        $tray = $m->mesh(
            'Cable tray',
            static fn (): array => [
                'stainless' => (new Shape)
                    ->box(0, 0, 0, 3.9, 0.3, 0.015)
                    ->box(0, -0.15, 0.04, 3.9, 0.015, 0.08)
                    ->box(0, 0.15, 0.04, 3.9, 0.015, 0.08),
            ],
        );
        for ($at = 0; $at < 8; $at++) {
            $m->part(
                $group,
                "MCC_$at",
                $cabinet,
                ['layer' => '74 Electrical', 'class' => 'DistributionBoard'],
                [14.0 + $at * 0.82, 16.6, 0.0],
            );
        }
        for ($at = 0; $at < 12; $at++) {
            $m->part($group, 'Tray', $tray, ['layer' => '74 Electrical', 'class' => 'CableCarrier'], [-22.0 + $at * 4, 15.4, 3.6]);
        }
        foreach ([1, 2, 3] as $at) {
            $m->group($group, "Group_empty_$at", $at === 2 ? [] : ['layer' => '74 Electrical']);
        }
    }
}
