<?php

declare(strict_types=1);

use VineShelf\Formats\Files;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\PackWriter;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;
use VineShelf\Simplify\Clustering;
use VineShelf\Simplify\Collapsing;
use VineShelf\Simplify\Surface;

/** How fast meshes become coarser, and how far the versions are from them beside those of the best public simplifier. */
final class Simplifying
{
    /** @return array<string, array{fast: float, careful: float, mean: float, most: float, triangles: int}> triangles a second, ratios */
    public static function all(string $demo): array
    {
        $rows = [];
        foreach (self::meshes($demo) as $name => $shape) {
            $surface = Surface::of($shape);
            $side = max($shape->scale);
            $fast = Rows::best(5, static fn () => Clustering::of(Surface::of($shape), $side / 12));
            $versions = [];
            $careful = Rows::time(static function () use ($shape, &$versions): void {
                $surface = Surface::of($shape);
                $collapsing = new Collapsing($surface);
                foreach ([2, 4, 8, 16] as $share) {
                    $versions[] = $collapsing->until(intdiv($surface->triangles(), $share))->shape;
                }
            });
            [$whole] = $surface->shape($surface->corners, array_fill(0, $surface->triangles(), 0));
            $measured = self::measured($whole, $versions);
            $ratio = static fn (string $own, string $other): float => max(
                array_map(static fn (array $m): float => $m[$other] < 1e-5 * $side ? 1.0 : $m[$own] / $m[$other], $measured),
            );
            $rows[$name] = [
                'fast' => $surface->triangles() / ($fast / 1000),
                'careful' => $surface->triangles() / ($careful / 1000),
                'mean' => $ratio('mean', 'otherMean'),
                'most' => $ratio('most', 'otherMost'),
                'triangles' => $surface->triangles(),
            ];
        }

        return $rows;
    }

    /** @return iterable<string, Shape> the heaviest of the demo, one as from a scanner, and one as from a machine */
    private static function meshes(string $demo): iterable
    {
        $intake = Files::open($demo);
        $heaviest = [];
        foreach ($intake->meshes() as $index => $mesh) {
            $heaviest[$index] = $mesh->triangles;
        }
        arsort($heaviest);
        foreach (array_slice(array_keys($heaviest), 0, 3) as $at => $index) {
            $pack = new PackWriter;
            $pack->add(1, $intake->primitives($index), []);
            yield 'demo '.($at + 1) => PackReader::shapes($pack->finish())[1];
        }
        mt_srand(3);
        yield 'scanned' => self::grid(
            180,
            360,
            static fn (float $u, float $v): array => self::onBall(
                $u,
                $v,
                0.8 + 0.08 * sin(5 * $u) * cos(4 * $v) + 0.003 * (mt_rand(0, 100) / 100),
            ),
            false,
        );
        yield 'mechanical' => self::grid(
            240,
            120,
            static fn (float $u, float $v): array => [
                (0.7 + 0.2 * self::squared($v)) * cos($u),
                (0.7 + 0.2 * self::squared($v)) * sin($u),
                0.2 * self::squared($v - M_PI / 2) + (cos(12 * $u) > 0.6 ? 0.05 : 0.0),
            ],
            true,
        );
    }

    /** @return array{float, float, float} */
    private static function onBall(float $polar, float $turn, float $far): array
    {
        return [$far * sin($polar) * cos($turn), $far * sin($polar) * sin($turn), $far * cos($polar)];
    }

    /** A wave with flat tops and steep sides. */
    private static function squared(float $angle): float
    {
        return max(-0.9, min(0.9, 2 * cos($angle))) / 0.9;
    }

    /**
     * @param callable(float, float): array{float, float, float} $place
     * @param bool                                               $isRing whether both directions lead back to where they began
     */
    private static function grid(int $rows, int $around, callable $place, bool $isRing): Shape
    {
        $steps = $indices = [];
        for ($row = 0; $row < ($isRing ? $rows : $rows + 1); $row++) {
            for ($at = 0; $at < $around; $at++) {
                $u = (($isRing ? 2 : 1) * M_PI * $row) / $rows;
                $isPole = ! $isRing && ($row === 0 || $row === $rows);
                foreach ($place($u, $isPole ? 0.0 : (2 * M_PI * $at) / $around) as $side) {
                    $steps[] = (int) round(Shape::STEPS * max(-1.0, min(1.0, $side)));
                }
                $steps[] = 0;
                if ($isRing || $row < $rows) {
                    [$next, $beside] = [($row + 1) % ($isRing ? $rows : $rows + 1), ($at + 1) % $around];
                    [$a, $b] = [$row * $around + $at, $row * $around + $beside];
                    [$c, $d] = [$next * $around + $at, $next * $around + $beside];
                    array_push($indices, $a, $c, $b, $b, $c, $d);
                }
            }
        }

        return new Shape(
            [1.0, 1.0, 1.0],
            [
                [
                    'kind' => PrimitiveKind::Triangles,
                    'positions' => pack('s*', ...$steps),
                    'indices' => pack('V*', ...$indices),
                    'wide' => true,
                ],
            ],
        );
    }

    /**
     * @param list<Shape> $versions
     *
     * @return list<array{mean: float, most: float, otherMean: float, otherMost: float}> metres
     */
    private static function measured(Shape $mesh, array $versions): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'shelf');
        file_put_contents($file, json_encode(['mesh' => self::plain($mesh), 'versions' => array_map(self::plain(...), $versions)]));
        $said = shell_exec('node '.escapeshellarg(__DIR__.'/distance.mjs').' <'.escapeshellarg($file));
        unlink($file);

        /** @var list<array{mean: float, most: float, otherMean: float, otherMost: float}> */
        return json_decode((string) $said, true, 16, JSON_THROW_ON_ERROR);
    }

    /** @return array{places: list<float>, corners: list<int>} */
    private static function plain(Shape $shape): array
    {
        $places = $corners = [];
        foreach ($shape->pieces as $piece) {
            $first = intdiv(count($places), 3);
            foreach (array_chunk(array_values((array) unpack('s*', $piece['positions'])), 4) as $place) {
                foreach ([0, 1, 2] as $axis) {
                    $places[] = ($place[$axis] * $shape->scale[$axis]) / Shape::STEPS;
                }
            }
            foreach ((array) unpack($piece['wide'] ? 'V*' : 'v*', $piece['indices']) as $corner) {
                $corners[] = $first + $corner;
            }
        }

        return ['places' => $places, 'corners' => $corners];
    }
}
