<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** Lockers, cabins, showers and benches under the gallery. */
final class Changing
{
    public static function build(Model $m, int $parent): void
    {
        $changing = $m->group($parent, 'Changing', ['layer' => '60 Changing', 'level' => 'Pool level']);
        self::walls($m, $m->group($changing, 'Partitions', ['layer' => '60 Changing']));
        self::lockers($m, $m->group($changing, 'Lockers', ['layer' => '61 Lockers']));
        self::cabins($m, $m->group($changing, 'Cabins', ['layer' => '62 Cabins']));
        self::showers($m, $m->group($changing, 'Showers', ['layer' => '63 Showers']));
    }

    private static function walls(Model $m, int $group): void
    {
        foreach ([[18.9, 6.0, 16.2, 0.12], [10.9, 11.6, 0.12, 11.2], [18.9, 11.6, 0.12, 6.0]] as $index => [$x, $y, $w, $d]) {
            $mesh = $m->mesh("Partition $index", static fn (): array => ['cabin panel' => (new Shape)->box($x, $y, 1.6, $w, $d, 3.2)]);
            $m->part($group, "Partition_$index", $mesh, ['layer' => '60 Changing', 'class' => 'Wall']);
        }
        $bench = $m->mesh('Bench', static function (): array {
            $slats = new Shape;
            foreach ([-0.15, -0.05, 0.05, 0.15] as $y) {
                $slats->box(0, $y, 0.44, 1.8, 0.08, 0.03);
            }

            return ['oak' => $slats, 'stainless' => (new Shape)->box(-0.7, 0, 0.21, 0.04, 0.3, 0.42)->box(0.7, 0, 0.21, 0.04, 0.3, 0.42)];
        });
        foreach ([[13.2, 8.6], [16.4, 8.6], [13.2, 14.9], [16.4, 14.9]] as [$x, $y]) {
            $m->part($group, 'Bench', $bench, ['layer' => '60 Changing', 'class' => 'Furniture'], [$x, $y, 0.0]);
        }
    }

    private static function lockers(Model $m, int $group): void
    {
        $carcass = $m->mesh('Locker carcass', static fn (): array => ['cabin panel' => (new Shape)->box(0, 0.02, 0.95, 0.3, 0.46, 1.9)]);
        $lock = $m->mesh(
            'Locker lock',
            static fn (): array => [
                'stainless' => (new Shape)->lathe(
                    [[0.022, 0], [0.022, 0.02], [0.008, 0.028], [0, 0.028]],
                    $m->sides(12),
                    0.1,
                    -0.24,
                    1.02,
                ),
                'signal orange' => (new Shape)->box(0.1, -0.245, 0.94, 0.035, 0.012, 0.02),
            ],
        );
        $number = 0;
        foreach ([[11.7, 9.9], [11.7, 10.5], [11.7, 13.1], [11.7, 13.7]] as $index => [$x, $y]) {
            $turn = $index % 2 === 0 ? 0.0 : M_PI;
            $bank = $m->group($group, 'Bank '.($index + 1), ['layer' => '61 Lockers'], [$x, $y, 0.0]);
            for ($at = 0; $at < 20; $at++) {
                $colour = ['locker teal', 'locker sand', 'locker ochre'][(int) ($at / 3 + $index) % 3];
                $door = $m->mesh(
                    "Door $colour",
                    static fn (): array => [$colour => (new Shape)->box(0, -0.225, 0.95, 0.285, 0.018, 1.86)],
                );
                $unit = $m->group(
                    $bank,
                    sprintf('Locker.%03d', ++$number),
                    ['layer' => '61 Lockers', 'class' => 'Furniture', 'number' => $number],
                    [$at * 0.31, 0.0, 0.0],
                    $turn,
                );
                $m->part($unit, 'Body', $carcass, ['layer' => '61 Lockers']);
                $m->part($unit, 'Door', $door, ['layer' => '61 Lockers', 'finish' => $colour]);
                $m->part($unit, 'Lock', $lock, ['layer' => '61 Lockers']);
            }
        }
    }

    private static function cabins(Model $m, int $group): void
    {
        $side = $m->mesh('Cabin side', static fn (): array => ['cabin panel' => (new Shape)->box(0, 0, 1.15, 0.03, 1.3, 2.0)]);
        $front = $m->mesh(
            'Cabin door',
            static fn (): array => [
                'oak' => (new Shape)->box(0, 0, 1.15, 0.9, 0.03, 1.9),
                'stainless' => (new Shape)->cylinder(0.36, -0.04, 1.1, 0.02, 0.05, $m->sides(8)),
            ],
        );
        $seat = $m->mesh('Cabin seat', static fn (): array => ['oak' => (new Shape)->box(0, 0, 0.46, 0.94, 0.32, 0.03)]);
        $hook = $m->mesh(
            'Hook',
            static fn (): array => [
                'stainless' => (new Shape)->tube([[0.0, 0.0, 0.0], [0.0, -0.06, -0.01], [0.0, -0.08, 0.03]], 0.008, $m->sides(6)),
            ],
        );
        for ($at = 0; $at < 12; $at++) {
            $turn = $at < 6 ? 0.0 : M_PI;
            $cabin = $m->group(
                $group,
                $at === 7 ? '' : sprintf('Cabin %02d', $at + 1),
                ['layer' => '62 Cabins', 'class' => 'Furniture'],
                [20.0 + ($at % 6) * 1.02, $at < 6 ? 15.6 : 13.0, 0.0],
                $turn,
            );
            $m->part($cabin, 'Side L', $side, ['layer' => '62 Cabins'], [-0.5, 0.0, 0.0]);
            $m->part($cabin, 'Side R', $side, ['layer' => '62 Cabins'], [0.5, 0.0, 0.0]);
            $m->part($cabin, 'Door', $front, ['layer' => '62 Cabins'], [0.0, -0.66, 0.0]);
            $m->part($cabin, 'Seat', $seat, ['layer' => '62 Cabins'], [0.0, 0.45, 0.0]);
            foreach ([-0.2, 0.2] as $x) {
                $m->part($cabin, 'Hook', $hook, ['layer' => '62 Cabins'], [$x, 0.62, 1.7]);
            }
        }
    }

    private static function showers(Model $m, int $group): void
    {
        $pipe = $m->mesh(
            'Shower pipe',
            static fn (): array => [
                'stainless' => (new Shape)->tube(
                    [[0.0, 0.0, 0.9], [0.0, 0.0, 2.1], [0.0, -0.08, 2.2], [0.0, -0.3, 2.2], [0.0, -0.34, 2.15]],
                    0.014,
                    $m->sides(8),
                ),
            ],
        );
        $head = $m->mesh(
            'Shower head',
            static fn (): array => [
                'stainless' => (new Shape)->lathe([[0, 0], [0.09, 0], [0.09, 0.015], [0.02, 0.05], [0, 0.05]], $m->sides(18)),
            ],
        );
        $mixer = $m->mesh(
            'Mixer',
            static fn (): array => [
                'stainless' => (new Shape)->ball(0, -0.05, 1.05, 0.05, $m->sides(12))->box(0, -0.1, 1.05, 0.02, 0.08, 0.02),
            ],
        );
        $divider = $m->mesh('Shower divider', static fn (): array => ['clear glass' => (new Shape)->box(0, -0.45, 1.0, 0.02, 0.9, 1.9)]);
        $drain = $m->mesh('Drain', static fn (): array => ['stainless' => (new Shape)->box(0, -0.5, 0.005, 0.5, 0.07, 0.02)]);
        for ($at = 0; $at < 12; $at++) {
            $shower = $m->group(
                $group,
                sprintf('Group (%d)', $at + 1),
                ['layer' => '63 Showers', 'class' => 'SanitaryTerminal'],
                [20.0 + ($at % 6) * 1.1, $at < 6 ? 10.9 : 6.4, 0.0],
                $at < 6 ? 0.0 : M_PI,
            );
            foreach (
                [
                    'Pipe' => [$pipe, [0.0, 0.0, 0.0]],
                    'Head' => [$head, [0.0, -0.34, 2.1]],
                    'Mixer' => [$mixer, [0.0, 0.0, 0.0]],
                    'Divider' => [$divider, [0.55, 0.0, 0.0]],
                    'Drain' => [$drain, [0.0, 0.0, 0.0]],
                ] as $name => [$mesh, $place]
            ) {
                $m->part($shower, $name, $mesh, ['layer' => '63 Showers'], $place);
            }
        }
    }
}
