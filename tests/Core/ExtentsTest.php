<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Facts;
use VineShelf\Facts\Measure;
use VineShelf\Formats\Files;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\Hull;
use VineShelf\Geometry\Hulls;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\PackWriter;
use VineShelf\Geometry\Primitive;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Origin;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;

/**
 * Extents are of objects as they stand, exact to a hundredth of a millimetre; what is kept to draw them is exact to what is promised.
 *
 * @phpstan-import-type Transform from Affine
 */
final class ExtentsTest extends TestCase
{
    /** A hundredth of a millimetre. */
    private const EXACT = 1e-5;

    #[TestWith([1, 0.0])]
    #[TestWith([2, 400.0])]
    #[TestWith([3, 2_600_000.0])]
    public function test_extents_are_those_of_all_turned_points(int $seed, float $away): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 25; $round++) {
            $clouds = array_map(static fn (int $_): array => self::cloud(mt_rand(1, $round === 0 ? 900 : 40)), range(1, 5));
            $parents = $kinds = $meshes = $placements = [];
            foreach (range(1, mt_rand(3, 40)) as $number) {
                $parents[$number] = $number === 1 ? 0 : mt_rand(0, $number - 1);
                $meshes[$number] = mt_rand(0, 2) === 0 ? 0 : mt_rand(1, 5);
                $kinds[$number] = $meshes[$number] > 0 ? 1 : 0;
                $placements[$number] =
                    $meshes[$number] === 0 ? [] : array_map(static fn (): array => self::placement($away), range(1, mt_rand(1, 3)));
            }
            $facts = self::facts($parents, $kinds, $meshes, $placements, $clouds);
            foreach (array_keys($parents) as $number) {
                $expected = self::slowBox($number, $parents, $meshes, $placements, $clouds);
                $row = $facts->scene->row($number);
                self::assertSame($expected === null, $facts->box($row) === null);
                foreach ([Measure::Width, Measure::Length, Measure::Height] as $axis => $measure) {
                    $side = $expected === null ? null : $expected[$axis + 3] - $expected[$axis];
                    self::assertEqualsWithDelta($side, $facts->measure($measure, $row), self::EXACT, "round $round, object $number");
                    // As a rule finds it.
                    $found =
                        $side === null
                            ? []
                            : $facts
                                ->ranked($measure->value)
                                ->between($side - self::EXACT, $side + self::EXACT)
                                ->rows();
                    self::assertSame($side !== null, in_array($row, $found, true), "round $round, object $number, $measure->value");
                }
                if ($expected !== null) {
                    self::assertEqualsWithDelta($expected[5], $facts->measure(Measure::Top, $row), max(self::EXACT, $away * 1e-10 + 1e-4));
                }
            }
        }
    }

    public function test_a_disc_that_is_turned_by_45_degrees_is_as_wide_as_one_that_is_not(): void
    {
        $disc = [];
        foreach (range(0, 179) as $step) {
            array_push($disc, 0.4 * cos(deg2rad(2 * $step)), 0.4 * sin(deg2rad(2 * $step)), 0.0);
        }
        $turned = Affine::compose([3.0, 4.0, 5.0], [0.0, 0.0, sin(M_PI / 8), cos(M_PI / 8)], [1.0, 1.0, 1.0]);
        $facts = self::facts([1 => 0, 2 => 0], [1 => 1, 2 => 1], [1 => 1, 2 => 1], [1 => [Affine::IDENTITY], 2 => [$turned]], [$disc]);
        self::assertEqualsWithDelta(0.8, $facts->measure(Measure::Width, 1), self::EXACT);
        self::assertEqualsWithDelta(0.8 * cos(deg2rad(1)), $facts->measure(Measure::Width, 2), self::EXACT);
        self::assertEqualsWithDelta(0.0, $facts->measure(Measure::Height, 2), self::EXACT);
        self::assertSame([1, 2], $facts->ranked('width')->between(0.79, 0.81)->rows());
    }

    public function test_small_values_are_shown_in_a_unit_that_keeps_their_digits(): void
    {
        $shown = [
            [Measure::Triangles, 12_345, '12,345'],
            [Measure::Width, 12.346, '12.35 m'],
            [Measure::Width, 0.01, '0.01 m'],
            [Measure::Height, 0.0048, '4.80 mm'],
            [Measure::Size, 0.00012345, '0.123 mm'],
            [Measure::Length, 0.0, '0.00 m'],
            // A place is a place, however near the middle it is.
            [Measure::X, 0.0048, '0.00 m'],
            [Measure::Bottom, -3.5, '-3.50 m'],
            [Measure::Volume, 1234.56, '1,234.6 m³'],
            [Measure::Volume, 0.25, '0.2500 m³'],
            [Measure::Volume, 2.7e-6, '2.70 cm³'],
            [Measure::Volume, 4.567e-4, '457 cm³'],
            [Measure::Volume, 8e-9, '8.00 mm³'],
            [Measure::Volume, 0.0, '0.0 m³'],
        ];
        foreach ($shown as [$measure, $value, $text]) {
            self::assertSame($text, $measure->shown($value));
        }
    }

    public function test_a_hull_reaches_as_far_as_all_points_in_every_direction_and_leaves_out_what_lies_inside(): void
    {
        mt_srand(9);
        $left = 0;
        for ($round = 0; $round < 40; $round++) {
            $points = match ($round % 4) {
                0 => self::cloud(1500),
                // On a sphere nothing can be left out; in a plane, and on a line, nothing must go wrong.
                1 => self::onSphere(600),
                2 => self::flat(700),
                default => array_merge(...array_fill(0, 400, [0.1 * mt_rand(0, 400), 0.0, 0.0])),
            };
            $packed = pack('g*', ...$points);
            /** @var list<float> $all */
            $all = array_values((array) unpack('g*', $packed));
            /** @var list<float> $some */
            $some = array_values((array) unpack('g*', Hull::of([substr($packed, 0, 1200), substr($packed, 1200)])));
            $left += count($all) - count($some);
            for ($way = 0; $way < 60; $way++) {
                $d = [mt_rand(-100, 100), mt_rand(-100, 100), mt_rand(-100, 100)];
                self::assertEqualsWithDelta(
                    self::reach($all, $d),
                    self::reach($some, $d),
                    1e-9 + 1e-6 * hypot(...[$d[0], $d[1]]),
                    "round $round",
                );
            }
        }
        self::assertGreaterThan(10_000, $left);
    }

    public function test_packs_are_as_exact_as_is_said_of_each_side(): void
    {
        mt_srand(4);
        foreach ([[0.02, 0.5, 0.001], [9.9, 0.3, 4.0], [60.0, 0.25, 2.0], [800.0, 30.0, 0.0], [14.0, 14.0, 14.0]] as $sides) {
            $points = $normals = [];
            for ($at = 0; $at < 300; $at++) {
                foreach ([0, 1, 2] as $axis) {
                    $points[] = 1000 + $sides[$axis] * ($at < 2 ? $at : mt_rand(0, 10_000) / 10_000);
                }
                array_push($normals, ...self::unit());
            }
            $primitive = new Primitive(
                PrimitiveKind::Triangles,
                pack('g*', ...$points),
                pack('V*', ...range(0, 299)),
                pack('g*', ...$normals),
            );
            $writer = new PackWriter;
            $box = $writer->add(7, [$primitive], [])->box;
            $bytes = $writer->finish();
            // As any reader of the format has it: the node's transform undoes the quantization.
            $theirs = Files::open(Gltf::keep($bytes));
            $m = $theirs->objects()->transform(1);
            $drawn = $theirs->primitives(0)[0];
            $places = array_values((array) unpack('g*', $drawn->positions));
            $given = array_values((array) unpack('g*', $primitive->positions));
            $ways = array_values((array) unpack('g*', (string) $drawn->normals));
            // Written with y up, as the format has it; the pack has z up.
            foreach (range(0, 299) as $vertex) {
                [$x, $y, $z] = array_slice($places, $vertex * 3, 3);
                foreach ([0, 1, 2] as $axis) {
                    $place = $m[$axis * 4] * $x + $m[$axis * 4 + 1] * $y + $m[$axis * 4 + 2] * $z + $m[$axis * 4 + 3];
                    $expected = [$given[$vertex * 3], -$given[$vertex * 3 + 2], $given[$vertex * 3 + 1]][$axis];
                    $side = [$sides[0], $sides[2], $sides[1]][$axis];
                    $error = max($sides) <= 10 ? 1e-4 : $side / 65_000;
                    self::assertEqualsWithDelta($expected, $place, $error + 7e-5, implode(' x ', $sides)." axis $axis");
                }
                // Normals go by the inverse of the scale.
                $scale = [hypot($m[0], hypot($m[4], $m[8])), hypot($m[1], hypot($m[5], $m[9])), hypot($m[2], hypot($m[6], $m[10]))];
                $way = [$ways[$vertex * 3] / $scale[0], $ways[$vertex * 3 + 1] / $scale[1], $ways[$vertex * 3 + 2] / $scale[2]];
                if (min($sides) > 0) {
                    self::assertLessThan(0.03, self::angle($way, array_slice($normals, $vertex * 3, 3)), implode(' x ', $sides));
                }
            }
            self::assertEqualsWithDelta(
                [$sides[0], $sides[1], $sides[2]],
                array_map(static fn (float $half): float => 2 * $half, $box->halves()),
                2e-4,
            );
            self::assertCount(1, PackReader::shapes($bytes));
        }
    }

    public function test_only_meshes_that_are_the_same_have_the_same_hash(): void
    {
        $triangle = [0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0, 0.0];
        $hash = static function (
            array $points,
            PrimitiveKind $kind = PrimitiveKind::Triangles,
            ?int $material = null,
            string $corners = '012',
        ): string {
            $indices = pack('V*', ...array_map(intval(...), str_split($corners)));

            return (new PackWriter)->add(1, [new Primitive($kind, pack('g*', ...$points), $indices, material: $material)], [])->hash;
        };
        $moved = array_map(static fn (float $n): float => $n + 5, $triangle);
        $larger = array_map(static fn (float $n): float => $n * 3, $triangle);
        $hashes = [
            $hash($triangle),
            $hash($moved),
            $hash($larger),
            $hash($triangle, PrimitiveKind::Lines, corners: '0120'),
            $hash($triangle, PrimitiveKind::Points),
            $hash($triangle, material: 0),
            $hash($triangle, material: 1),
            $hash($triangle, corners: '021'),
        ];
        self::assertSame($hashes, array_values(array_unique($hashes)));
        self::assertSame($hash($triangle), $hash($triangle));
    }

    public function test_one_object_astray_does_not_move_the_origin(): void
    {
        $middles = array_fill(0, 99, [5_400_012.0, 5_300_040.0, 12.0]);
        self::assertSame([5_400_000.0, 5_300_000.0, 0.0], Origin::of([[0.0, 0.0, 0.0], ...$middles]));
        self::assertSame([0.0, 0.0, 0.0], Origin::of([[9e8, 0.0, 0.0], ...array_fill(0, 9, [12.0, 900.0, -3.0])]));
        self::assertSame([0.0, 0.0, 0.0], Origin::of([]));

        // A mesh that was drawn far from its own zero is as exact as one that was moved there.
        $cloud = array_map(static fn (float $n): float => $n + 5_400_000.0, [0.0, 0.0, 0.0, 1.0, 2.0, 3.0]);
        $facts = self::facts([1 => 0], [1 => 1], [1 => 1], [1 => [Affine::IDENTITY]], [$cloud]);
        $records = array_values((array) unpack('g12', $facts->scene->column('records'), 8));
        self::assertSame(5_400_000.0, $facts->origin()[0]);
        self::assertLessThan(200.0, max(array_map(abs(...), $records)));
    }

    /**
     * @param array<int, int>             $parents
     * @param array<int, int>             $kinds
     * @param array<int, int>             $meshes
     * @param array<int, list<Transform>> $placements
     * @param list<list<float>>           $clouds
     */
    private static function facts(array $parents, array $kinds, array $meshes, array $placements, array $clouds): Facts
    {
        $columns = SceneBuilder::columns($parents, array_fill_keys(array_keys($parents), 1), $kinds, [], []);
        $packed = $hulls = '';
        $placed = $facts = [];
        foreach ($placements as $number => $ones) {
            if ($ones !== []) {
                $placed[$number] = strlen($packed);
                $packed .= implode('', array_map(Affine::pack(...), $ones));
            }
        }
        foreach ($clouds as $index => $cloud) {
            $points = pack('g*', ...$cloud);
            $facts[$index + 1] = ['pack' => 1, 'triangles' => 1, 'colour' => 0, 'box' => Box::around($points)];
            $hulls .= Hulls::entry($index + 1, Hull::of([$points]));
        }
        /** @var list<int> $order */
        $order = array_values((array) unpack('V*', $columns['no']));
        $columns += DrawRecords::columns($order, array_filter($meshes), $placed, $packed, $facts, $hulls) + ['spots' => ''];

        return new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($columns))));
    }

    /**
     * @param array<int, int>             $parents
     * @param array<int, int>             $meshes
     * @param array<int, list<Transform>> $placements
     * @param list<list<float>>           $clouds
     *
     * @return array{float, float, float, float, float, float}|null
     */
    private static function slowBox(int $number, array $parents, array $meshes, array $placements, array $clouds): ?array
    {
        $places = [[], [], []];
        foreach ($parents as $other => $_) {
            for ($above = $other; $above !== 0 && $above !== $number; $above = $parents[$above]);
            foreach ($above === $number ? $placements[$other] : [] as $m) {
                // As the file has them: 32-bit numbers.
                foreach (array_chunk(array_values((array) unpack('g*', pack('g*', ...$clouds[$meshes[$other] - 1]))), 3) as [$x, $y, $z]) {
                    foreach ([0, 1, 2] as $axis) {
                        $places[$axis][] = $m[$axis * 4] * $x + $m[$axis * 4 + 1] * $y + $m[$axis * 4 + 2] * $z + $m[$axis * 4 + 3];
                    }
                }
            }
        }

        return $places[0] === [] ? null : [...array_map(min(...), $places), ...array_map(max(...), $places)];
    }

    /** @return list<float> */
    private static function cloud(int $points): array
    {
        $size = [0.05, 1.0, 12.0][mt_rand(0, 2)];

        return array_map(static fn (int $_): float => ($size * mt_rand(-10_000, 10_000)) / 10_000, range(1, 3 * $points));
    }

    /** @return list<float> */
    private static function onSphere(int $points): array
    {
        return array_merge(...array_map(static fn (int $_): array => self::unit(), range(1, $points)));
    }

    /** @return list<float> points in a slanted plane */
    private static function flat(int $points): array
    {
        return array_merge(
            ...array_map(static function (): array {
                [$u, $v] = [mt_rand(-50, 50) / 10, mt_rand(-50, 50) / 10];

                return [$u, $v, 0.3 * $u - 0.2 * $v];
            }, range(1, $points)),
        );
    }

    /** @return array{float, float, float} */
    private static function unit(): array
    {
        [$z, $turn] = [mt_rand(-1000, 1000) / 1000, deg2rad(mt_rand(0, 359))];

        return [sqrt(1 - $z * $z) * cos($turn), sqrt(1 - $z * $z) * sin($turn), $z];
    }

    /** @return Transform turned, mirrored and unevenly scaled */
    private static function placement(float $away): array
    {
        $move = [$away + mt_rand(-9000, 9000) / 100, mt_rand(-9000, 9000) / 100 - $away, mt_rand(-900, 900) / 100];
        $turn =
            mt_rand(0, 3) === 0
                ? [0.0, 0.0, 0.0, 1.0]
                : [mt_rand(-99, 99) / 100, mt_rand(-99, 99) / 100, mt_rand(-99, 99) / 100, mt_rand(1, 99) / 100];

        return Affine::compose($move, $turn, [mt_rand(10, 300) / 100, mt_rand(-300, -10) / 100, mt_rand(10, 300) / 100]);
    }

    /**
     * @param list<float> $points
     * @param list<int>   $way
     */
    private static function reach(array $points, array $way): float
    {
        return max(array_map(static fn (array $p): float => $p[0] * $way[0] + $p[1] * $way[1] + $p[2] * $way[2], array_chunk($points, 3)));
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     */
    private static function angle(array $a, array $b): float
    {
        $dot = $a[0] * $b[0] + $a[1] * $b[1] + $a[2] * $b[2];
        $lengths = sqrt(($a[0] ** 2 + $a[1] ** 2 + $a[2] ** 2) * ($b[0] ** 2 + $b[1] ** 2 + $b[2] ** 2));

        return acos(max(-1.0, min(1.0, $dot / $lengths)));
    }
}
