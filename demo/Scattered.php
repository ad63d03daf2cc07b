<?php

declare(strict_types=1);

namespace MarlpitBaths;

/**
 * The stores of all the baths of the region, as somebody else's model would deliver them: layers, tags and materials change from object to
 * object, nodes stand in no order, parts are turned, mirrored and scaled unevenly, most meshes are used once and a few thousands of times.
 * About 200,000 objects and 8 million triangles drawn. The same every time.
 */
final class Scattered
{
    private const GROUPS = 6_000;

    private const UNIQUE = 28_000;

    private const PARTS = 194_000;

    private const LAYERS = [
        'Timber',
        'Tiles',
        'Steel',
        'Pipes',
        'Cable',
        'Fixings',
        'Glass',
        'Rubber',
        'Paint',
        'Spare',
        'Returned',
        'To check',
        'Unlabelled',
    ];

    private const FINISHES = [
        'glulam larch',
        'pool tile',
        'pool tile dark',
        'stainless',
        'concrete',
        'seat green',
        'seat ochre',
        'locker teal',
        'pipe blue',
        'pipe red',
        'oak',
        'rubber black',
    ];

    private const NAMES = ['Tile', 'Bracket', 'Seat shell', 'Locker door', 'Pipe end', 'Valve', 'Grating', 'Lamp ring', 'Coping', 'Float'];

    public static function build(Model $model): void
    {
        mt_srand(20_260_407);
        $root = $model->group(null, 'MARLPIT_STORES_all');
        $groups = [$root];
        $depths = [0];
        for ($n = 1; $n <= self::GROUPS; $n++) {
            $above = mt_rand(max(0, count($groups) - 400), count($groups) - 1);
            $above = $depths[$above] > 7 ? 0 : $above;
            $properties = mt_rand(0, 3) === 0 ? ['layer' => self::LAYERS[mt_rand(0, 12)]] : [];
            $groups[] = $model->group(
                $groups[$above],
                'Pallet '.$n,
                $properties,
                self::place($depths[$above] === 0 ? 180.0 : 2.0),
                self::turn(),
            );
            $depths[] = $depths[$above] + 1;
        }
        $common = self::common($model);
        for ($n = 0; $n < self::PARTS; $n++) {
            $mesh = $n < self::UNIQUE ? self::unique($model, $n) : $common[mt_rand(0, count($common) - 1)];
            $group = $groups[mt_rand(0, count($groups) - 1)];
            $model->part(
                $group,
                self::NAMES[mt_rand(0, 9)].'_'.mt_rand(1, 9999),
                $mesh,
                self::properties($n),
                self::place(3.0),
                self::turn(),
                self::scale(),
            );
        }
        $model->shuffle();
    }

    /** @return list<int> meshes that are used again and again */
    private static function common(Model $model): array
    {
        $meshes = [];
        foreach (range(0, 39) as $n) {
            $finish = self::FINISHES[$n % count(self::FINISHES)];
            $meshes[] = $model->mesh(
                "Common $n",
                static fn (): array => [
                    $finish => match ($n % 4) {
                        0 => (new Shape)->ball(0, 0, 0, 0.12 + $n / 400, 8),
                        1 => (new Shape)->cylinder(0, 0, 0, 0.1, 0.3 + $n / 200, 10),
                        2 => (new Shape)
                            ->box(0, 0, 0.2, 0.3, 0.2, 0.4)
                            ->box(0.2, 0, 0.1, 0.1, 0.1, 0.2)
                            ->box(-0.2, 0, 0.1, 0.1, 0.1, 0.2),
                        default => (new Shape)->tube([[0.0, 0.0, 0.0], [0.2, 0.0, 0.0], [0.2, 0.3, 0.1]], 0.03, 8),
                    },
                ],
            );
        }

        return $meshes;
    }

    private static function unique(Model $model, int $n): int
    {
        $sides = mt_rand(4, 9);
        $profile = [[0.0, 0.0], [mt_rand(5, 40) / 100, 0.0], [mt_rand(5, 40) / 100, mt_rand(5, 90) / 100], [0.0, mt_rand(20, 95) / 100]];

        return $model->mesh(
            "Piece $n",
            static fn (): array => [self::FINISHES[$n % count(self::FINISHES)] => (new Shape)->lathe($profile, $sides)],
        );
    }

    /** @return array<string, mixed> */
    private static function properties(int $n): array
    {
        $properties = ['layer' => self::LAYERS[mt_rand(0, 12)]];
        if (mt_rand(0, 1) === 0) {
            $properties['class'] = ['Tile', 'Fitting', 'Panel', 'Fixing'][mt_rand(0, 3)];
        }
        if (mt_rand(0, 2) === 0) {
            $properties['article'] = 'A-'.mt_rand(1, 90_000);
        }
        if (mt_rand(0, 3) === 0) {
            $properties['weighed'] = mt_rand(1, 80_000_000) / 1000;
        }
        if ($n % 400 === 0) {
            $properties['note '.$n % 97] = 'seen '.$n;
        }

        return $properties;
    }

    /** @return array{float, float, float} */
    private static function place(float $within): array
    {
        return [self::between(-$within, $within), self::between(-$within, $within), self::between(0.0, min(6.0, $within))];
    }

    private static function turn(): float
    {
        return mt_rand(0, 3) === 0 ? 0.0 : self::between(-M_PI, M_PI);
    }

    /** @return array{float, float, float} one in six is mirrored */
    private static function scale(): array
    {
        $mirror = mt_rand(0, 5) === 0 ? -1.0 : 1.0;

        return mt_rand(0, 2) === 0
            ? [$mirror, 1.0, 1.0]
            : [$mirror * self::between(0.4, 2.2), self::between(0.4, 2.2), self::between(0.4, 2.2)];
    }

    private static function between(float $low, float $high): float
    {
        return $low + (($high - $low) * mt_rand()) / mt_getrandmax();
    }
}
