<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** Glass walls on all four sides, and the doors. */
final class Facade
{
    public static function build(Model $m, int $parent): void
    {
        $facade = $m->group($parent, 'Facade', ['layer' => '30 Glazing', 'level' => 'Pool level']);
        $width = Structure::BAY / 4;
        $pane = $m->mesh('Pane', static fn (): array => ['clear glass' => (new Shape)->box(0, 0, 0, $width - 0.07, 0.03, 1.33)]);
        $mullion = $m->mesh('Mullion', static fn (): array => ['alu frame' => (new Shape)->box(0, 0, 3.5, 0.07, 0.16, 7)]);
        $transom = $m->mesh('Transom', static fn (): array => ['alu frame' => (new Shape)->box(0, 0, 0, Structure::BAY - 0.3, 0.1, 0.06)]);
        foreach (['S' => -17.15, 'N' => 17.15] as $side => $y) {
            $wall = $m->group($facade, "CW-$side", ['layer' => '30 Glazing', 'class' => 'CurtainWall']);
            for ($bay = 0; $bay < Structure::BAYS; $bay++) {
                $unit = $m->group(
                    $wall,
                    "CW-$side Bay ".chr(65 + $bay),
                    ['layer' => '30 Glazing', 'bay' => chr(65 + $bay)],
                    [Structure::archX($bay) + Structure::BAY / 2, $y, 0.0],
                );
                for ($row = 0; $row < 5; $row++) {
                    for ($column = 0; $column < 4; $column++) {
                        $m->part(
                            $unit,
                            "Glass#$row$column",
                            $pane,
                            ['layer' => '30 Glazing', 'class' => 'Plate'],
                            [($column - 1.5) * $width, 0.0, 0.72 + $row * 1.4],
                        );
                    }
                    $m->part($unit, 'Transom', $transom, ['layer' => '31 Frames', 'class' => 'Member'], [0.0, 0.0, 0.02 + $row * 1.4]);
                }
                for ($column = 0; $column < 4; $column++) {
                    $m->part($unit, 'Mullion', $mullion, ['layer' => '31 Frames', 'class' => 'Member'], [($column - 2) * $width, 0.0, 0.0]);
                }
            }
        }
        foreach (['W' => -27.9, 'E' => 27.9] as $side => $x) {
            self::gable($m, $m->group($facade, "CW-$side", ['layer' => '30 Glazing', 'class' => 'CurtainWall'], [$x, 0.0, 0.0]));
        }
        self::doors($m, $m->group($facade, 'Doors', ['layer' => '32 Doors', 'level' => 'Pool level']));
    }

    private static function gable(Model $m, int $wall): void
    {
        for ($column = 0; $column < 14; $column++) {
            $top = Structure::archZ(($column + 0.5) / 14) - 0.5;
            $at = -17 + (34 * ($column + 0.5)) / 14;
            $glass = $m->mesh(
                "Gable pane $column",
                static fn (): array => ['clear glass' => (new Shape)->box(0, 0, $top / 2, 0.03, 34 / 14 - 0.08, $top)],
            );
            $post = $m->mesh(
                "Gable post $column",
                static fn (): array => ['alu frame' => (new Shape)->box(0, 0, $top / 2, 0.16, 0.08, $top)],
            );
            $m->part($wall, "Glass#G$column", $glass, ['layer' => '30 Glazing', 'class' => 'Plate'], [0.0, $at, 0.0]);
            $m->part($wall, "Post $column", $post, ['layer' => '31 Frames', 'class' => 'Member'], [0.0, $at - 17 / 14, 0.0]);
        }
    }

    private static function doors(Model $m, int $doors): void
    {
        $leaf = $m->mesh(
            'Door leaf',
            static fn (): array => [
                'oak' => (new Shape)->box(0, 0, 1.05, 0.95, 0.05, 2.1),
                'clear glass' => (new Shape)->box(0, -0.03, 1.5, 0.3, 0.02, 0.9),
            ],
        );
        $frame = $m->mesh(
            'Door frame',
            static fn (): array => [
                'alu frame' => (new Shape)
                    ->box(-0.52, 0, 1.1, 0.08, 0.18, 2.2)
                    ->box(0.52, 0, 1.1, 0.08, 0.18, 2.2)
                    ->box(0, 0, 2.18, 1.12, 0.18, 0.08),
            ],
        );
        $handle = $m->mesh(
            'Lever handle',
            static fn (): array => [
                'stainless' => (new Shape)
                    ->tube([[0.38, -0.03, 1.05], [0.38, -0.09, 1.05], [0.26, -0.1, 1.05]], 0.011, $m->sides(8))
                    ->cylinder(0.38, -0.03, 1.03, 0.026, 0.01, $m->sides(10)),
            ],
        );
        $places = [[11.2, 5.9], [14.0, 5.9], [20.0, 5.9], [23.0, 5.9], [26.2, 5.9], [-27.2, -4.0], [-27.2, 4.0], [27.2, -8.0]];
        foreach ($places as $index => [$x, $y]) {
            $door = $m->group(
                $doors,
                sprintf('Door_D%02d', $index + 1),
                [
                    'layer' => '32 Doors',
                    'class' => 'Door',
                    'mark' => sprintf('D%02d', $index + 1),
                    'fire rating' => $index % 3 === 0 ? 'EI30' : 'none',
                ],
                [$x, $y, 0.0],
                abs($x) > 27 ? M_PI / 2 : 0.0,
            );
            $m->part($door, 'Leaf', $leaf, ['layer' => '32 Doors']);
            $m->part($door, 'Frame', $frame, ['layer' => '32 Doors']);
            $m->part($door, 'Handle', $handle, ['layer' => '32 Doors']);
        }
    }
}
