<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\PackWriter;
use VineShelf\Geometry\Primitive;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Quantizer;
use VineShelf\Geometry\ShapeIndex;

/** @phpstan-import-type Transform from Affine */
final class GeometryTest extends TestCase
{
    public function test_a_product_does_the_inner_transform_first(): void
    {
        mt_srand(2);
        for ($round = 0; $round < 200; $round++) {
            [$outer, $inner, $point] = [self::transform(), self::transform(), self::point()];
            self::assertEqualsWithDelta(
                self::apply($outer, self::apply($inner, $point)),
                self::apply(Affine::product($outer, $inner), $point),
                1e-9,
            );
        }
        self::assertSame(Affine::IDENTITY, Affine::product(Affine::Z_UP_TO_Y_UP, Affine::Y_UP_TO_Z_UP));
        self::assertSame([1.0, -3.0, 2.0], self::apply(Affine::Y_UP_TO_Z_UP, [1.0, 2.0, 3.0]));
    }

    public function test_scale_comes_before_turn_before_move(): void
    {
        $half = sqrt(0.5);
        // A quarter turn about z: (2, 0, 0) after scaling goes to (0, 2, 0), then moves.
        self::assertEqualsWithDelta(
            [5.0, 8.0, 7.0],
            self::apply(Affine::compose([5.0, 6.0, 7.0], [0.0, 0.0, $half, $half], [2.0, 3.0, 4.0]), [1.0, 0.0, 0.0]),
            1e-12,
        );
        // A quaternion that is not of unit length turns by the same angle.
        self::assertEqualsWithDelta(
            Affine::compose([0.0, 0.0, 0.0], [0.0, 0.0, $half, $half], [1.0, 1.0, 1.0]),
            Affine::compose([0.0, 0.0, 0.0], [0.0, 0.0, 3.0, 3.0], [1.0, 1.0, 1.0]),
            1e-12,
        );
    }

    public function test_transforms_survive_packing_to_the_last_bit(): void
    {
        mt_srand(6);
        $transform = self::transform();
        self::assertSame($transform, Affine::unpack('12345678'.Affine::pack($transform), 8));
    }

    public function test_boxes_hold_their_points_before_and_after_a_transform(): void
    {
        mt_srand(9);
        for ($round = 0; $round < 60; $round++) {
            $points = array_map(static fn (): array => self::point(), range(1, mt_rand(1, 30)));
            $packed = implode('', array_map(static fn (array $point): string => pack('g3', ...$point), $points));
            $points = array_map(static fn (string $point): array => array_values((array) unpack('g3', $point)), str_split($packed, 12));
            $box = Box::around($packed);
            $m = self::transform();
            $exact = Box::aroundTransformed($packed, $m);
            $loose = $box->transformed($m);
            foreach (['X' => 0, 'Y' => 1, 'Z' => 2] as $axis => $at) {
                self::assertSame(
                    [min(array_column($points, $at)), max(array_column($points, $at))],
                    [$box->{"min$axis"}, $box->{"max$axis"}],
                );
                $moved = array_column(array_map(static fn (array $point): array => self::apply($m, $point), $points), $at);
                self::assertEqualsWithDelta([min($moved), max($moved)], [$exact->{"min$axis"}, $exact->{"max$axis"}], 1e-9);
                self::assertLessThanOrEqual(min($moved) + 1e-9, $loose->{"min$axis"});
                self::assertGreaterThanOrEqual(max($moved) - 1e-9, $loose->{"max$axis"});
            }
        }
        self::assertTrue((new Box)->isEmpty());
        self::assertTrue((new Box)->transformed(self::transform())->isEmpty());
        self::assertNull((new Box)->toArray());
        self::assertSame(1.0, (new Box)->with(new Box(1, 1, 1, 2, 2, 2))->minX);
    }

    public function test_quantized_positions_and_normals_stay_within_half_a_step(): void
    {
        mt_srand(14);
        $count = 9000; // more than one window
        $floats = [];
        for ($at = 0; $at < 3 * $count; $at++) {
            $floats[] = mt_rand(-100_000, 100_000) / 10_000 + 50;
        }
        $packed = pack('g*', ...$floats);
        $floats = array_values((array) unpack('g*', $packed));
        $steps = array_values((array) unpack('s*', Quantizer::positions($packed, [50.0, 50.0, 50.0], [10.0, 10.0, 10.0])));
        self::assertCount(4 * $count, $steps);
        for ($vertex = 0; $vertex < $count; $vertex += 7) {
            for ($axis = 0; $axis < 3; $axis++) {
                self::assertEqualsWithDelta(
                    $floats[$vertex * 3 + $axis],
                    50 + ($steps[$vertex * 4 + $axis] / 32767) * 10,
                    10 / 32767 / 2 + 1e-5,
                );
            }
            self::assertSame(0, $steps[$vertex * 4 + 3]);
        }
        $normals = array_values((array) unpack('c*', Quantizer::normals(pack('g*', 0, 0, 5, 3, 4, 0, 0, 0, 0))));
        self::assertSame([0, 0, 127, 0, 76, 102, 0, 0, 0, 0, 127, 0], $normals, 'a normal of no length points up');
    }

    public function test_indices_get_as_small_as_the_vertices_allow(): void
    {
        self::assertSame([pack('v*', 0, 9, 300), 5123], Quantizer::indices(pack('V*', 0, 9, 300), 301));
        self::assertSame([pack('V*', 0, 70_000), 5125], Quantizer::indices(pack('V*', 0, 70_000), 70_001));
    }

    public function test_a_mesh_is_read_alone_as_it_is_read_with_its_pack(): void
    {
        mt_srand(31);
        $entries = [];
        $packs = [];
        foreach (range(1, 6) as $pack) {
            $writer = new PackWriter;
            foreach (range(1, mt_rand(1, 5)) as $_) {
                // Numbers come in any order and with gaps; some meshes have several pieces, some none, one more corners than 16 bits count.
                $number = count($entries) * 3 + mt_rand(0, 2);
                $primitives = [];
                foreach (range(0, mt_rand(0, 3)) as $at) {
                    $vertices = $number === 9 && $at === 1 ? 66_000 : mt_rand(3, 40);
                    $points = array_map(static fn (): float => mt_rand(-9000, 9000) / 700, range(1, 3 * $vertices));
                    $kind = [PrimitiveKind::Triangles, PrimitiveKind::Lines, PrimitiveKind::Points][mt_rand(0, 2)];
                    $corners = array_map(static fn (): int => mt_rand(0, $vertices - 1), range(1, 6));
                    $primitives[] = new Primitive($kind, pack('g*', ...$points), pack('V*', ...$corners));
                }
                $entries[$number] = [$pack, $writer->add($number, $primitives, [])->shape];
            }
            $packs[$pack] = $writer->finish();
        }
        $order = array_values($entries);
        shuffle($order);
        $index = new ShapeIndex(ShapeIndex::of(implode('', array_column($order, 1)))->pack());
        foreach ($entries as $number => [$pack]) {
            $bytes = $packs[$pack];
            $start = 28 + ((array) unpack('V', $bytes, 12))[1];
            $alone = $index->shape($number, static fn (int $at, int $length): string => substr($bytes, $start + $at, $length));
            self::assertEquals(PackReader::shapes($bytes)[$number] ?? null, $alone, "mesh $number");
        }
        $none = static fn (int $at, int $length): string => throw new \LogicException('nothing is read');
        self::assertNull($index->shape(1_000_000, $none));
        self::assertNull((new ShapeIndex(''))->shape(0, $none));
    }

    public function test_a_pack_that_is_cut_or_longer_than_it_was_written_is_none(): void
    {
        $writer = new PackWriter;
        $corners = pack('g*', ...array_map(static fn (int $n): float => sin($n), range(1, 36)));
        $shape = $writer->add(4, [new Primitive(PrimitiveKind::Triangles, $corners, pack('V*', ...range(0, 11)))], [])->shape;
        $bytes = $writer->finish();
        self::assertSame([[4, 0]], PackReader::whole($bytes)?->holds());
        self::assertNull(PackReader::whole(null));
        for ($length = 0; $length < strlen($bytes); $length++) {
            self::assertNull(PackReader::whole(substr($bytes, 0, $length)), "$length bytes");
        }
        self::assertNull(PackReader::whole("$bytes\0"));
        self::assertSame([], PackReader::shapes(substr($bytes, 0, 90)));
        // What stands in one pack can stand in another under another number, to the last bit.
        $packed = PackReader::whole($bytes)->packed(4);
        \assert($packed !== null);
        $again = new PackWriter;
        $copy = $again->addShape(9, $packed, Box::around($corners));
        self::assertSame([9, 4, 12], [$copy->number, $copy->triangles, $copy->vertices]);
        self::assertEquals(Box::around($corners), $copy->box);
        $other = $again->finish();
        self::assertEquals($packed, PackReader::whole($other)?->packed(9));
        $start = 28 + ((array) unpack('V', $other, 12))[1];
        $read = static fn (int $at, int $length): string => substr($other, $start + $at, $length);
        self::assertEquals($packed->shape(), ShapeIndex::of($copy->shape)->shape(9, $read));
        self::assertNotSame('', $shape);
    }

    /** @return Transform */
    private static function transform(): array
    {
        return Affine::compose(
            self::point(),
            array_map(static fn (): float => mt_rand(-100, 100) / 100 + 0.001, range(1, 4)),
            array_map(static fn (): float => mt_rand(1, 300) / 100, range(1, 3)),
        );
    }

    /** @return array{float, float, float} */
    private static function point(): array
    {
        return [mt_rand(-5000, 5000) / 100, mt_rand(-5000, 5000) / 100, mt_rand(-5000, 5000) / 100];
    }

    /**
     * @param Transform    $m
     * @param array<float> $p
     *
     * @return array{float, float, float}
     */
    private static function apply(array $m, array $p): array
    {
        return [
            $m[0] * $p[0] + $m[1] * $p[1] + $m[2] * $p[2] + $m[3],
            $m[4] * $p[0] + $m[5] * $p[1] + $m[6] * $p[2] + $m[7],
            $m[8] * $p[0] + $m[9] * $p[1] + $m[10] * $p[2] + $m[11],
        ];
    }
}
