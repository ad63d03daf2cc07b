<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Node;
use VineShelf\Geometry\PackedPiece;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\PackPart;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\PackWriter;
use VineShelf\Geometry\Primitive;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\Scene;
use VineShelf\Simplify\Version;
use VineShelf\Simplify\Versions;

/** The coarser versions of a mesh with all that they are drawn with, in and out of packs. */
final class VersionsTest extends TestCase
{
    public function test_each_version_is_coarser_and_farther_off_and_made_of_vertices_that_the_mesh_has(): void
    {
        foreach ([1.0, 30.0] as $size) {
            $mesh = self::packed(self::pipe(40, 24, $size));
            foreach ([Versions::careful($mesh), Versions::fast($mesh)] as $versions) {
                self::assertGreaterThanOrEqual(2, count($versions));
                $before = new Version($mesh, $mesh->triangles(), -1.0);
                foreach ($versions as $version) {
                    self::assertLessThanOrEqual(0.7 * $before->triangles, $version->triangles);
                    self::assertGreaterThanOrEqual($before->error - 1e-9, $version->error);
                    self::assertSame($version->triangles, $version->shape->triangles());
                    self::assertSame([$mesh->centre, $mesh->scale], [$version->shape->centre, $version->shape->scale]);
                    self::assertSame([], array_diff(self::vertices($version->shape), self::vertices($mesh)), 'no vertex is made up');
                    $before = $version;
                }
            }
        }
    }

    public function test_corners_keep_to_their_side_of_sharp_edges_and_of_cuts_in_a_texture(): void
    {
        // A pipe with flat ends, its texture cut where it closes: at that line each place has two coordinates, at the rims two normals.
        $mesh = self::packed(self::pipe(40, 24, 1.0));
        foreach (array_slice(Versions::careful($mesh), 0, 3) as $at => $version) {
            [$side, $end] = $version->shape->pieces;
            foreach (self::triangles($side) as $triangle) {
                [$u0, $u1] = [min(array_column($triangle, 'u')), max(array_column($triangle, 'u'))];
                // Around the pipe a triangle is never wider than the turn that it makes.
                self::assertLessThan($at === 0 ? 0.3 : 0.6, $u1 - $u0);
                foreach ($triangle as ['normal' => $normal]) {
                    self::assertEqualsWithDelta(0.0, $normal[2], 0.02, 'the side has the normals of the side');
                }
            }
            foreach (self::triangles($end) as $triangle) {
                foreach ($triangle as ['normal' => $normal]) {
                    self::assertEqualsWithDelta(1.0, abs($normal[2]), 0.02, 'the ends those of the ends');
                }
            }
        }
    }

    public function test_small_meshes_have_none_and_what_is_no_triangle_stays(): void
    {
        self::assertSame([], Versions::careful(self::packed([self::pipe(1, 7, 1.0)[0]])));
        self::assertSame([], Versions::careful(new PackedShape([0.0, 0.0, 0.0], [1.0, 1.0, 1.0], [])));
        $line = new Primitive(PrimitiveKind::Lines, pack('g*', 0, 0, 0, 1, 1, 1), pack('V*', 0, 1));
        $mesh = self::packed([...self::pipe(20, 16, 1.0), $line]);
        foreach (Versions::careful($mesh) as $version) {
            $last = $version->shape->pieces[count($version->shape->pieces) - 1];
            self::assertEquals($mesh->pieces[2], $last);
        }
    }

    public function test_the_coarsest_that_still_looks_like_the_mesh_does_for_the_rung(): void
    {
        self::assertSame(0, Versions::coarse([], 1.0));
        self::assertSame(1, Versions::coarse([0.5, 0.7], 1.0), 'the finest, where all are far off');
        self::assertSame(2, Versions::coarse([0.001, 0.02, 0.5], 1.0));
        self::assertSame(3, Versions::coarse([0.001, 0.02, 0.5], 100.0));
    }

    public function test_packs_of_versions_are_read_back_the_same_and_pass_the_validator(): void
    {
        $meshes = [7 => self::packed(self::pipe(30, 16, 1.0)), 9 => self::packed(self::pipe(30, 16, 40.0))];
        $writer = new PackWriter;
        $entries = '';
        $all = [];
        foreach ($meshes as $number => $mesh) {
            foreach (Versions::careful($mesh) as $at => $version) {
                $size = $writer->addVersion($number, $at + 1, $version->shape);
                self::assertSame($version->shape->vertices(), $size['vertices']);
                $entries .= MeshVersions::entry(
                    $number,
                    $version->triangles,
                    $size['vertices'],
                    $version->error,
                    $size['bytes'],
                    $at === 1,
                );
                $all[$number][$at + 1] = $version;
            }
        }
        $bytes = $writer->finish();
        $reader = new PackReader($bytes);
        self::assertSame(array_sum(array_map(count(...), $all)), count($reader->holds()));
        foreach ($all as $number => $versions) {
            foreach ($versions as $at => $version) {
                self::assertEquals($version->shape, $reader->packed($number, $at));
            }
            self::assertNull($reader->packed($number), 'the mesh itself stands elsewhere');
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'pack');
        file_put_contents($path, $bytes);
        self::assertSame([0, 0], [Node::run('count.mjs', $path)['errors'], $reader->packed(8) === null ? 0 : 1]);
        unlink($path);

        // Two halves of the entries, in packs of their own and in any order.
        $half = MeshVersions::ENTRY * intdiv(strlen($entries), 2 * MeshVersions::ENTRY);
        $column = MeshVersions::column([5 => substr($entries, $half), 4 => substr($entries, 0, $half)]);
        $scene = new Scene(new ColumnsInMemory(['versions' => $column]));
        $known = MeshVersions::all($scene);
        foreach (range(0, 12) as $number) {
            self::assertSame($known[$number] ?? [], MeshVersions::of($scene, $number));
        }
        foreach ($all as $number => $versions) {
            self::assertSame(
                array_map(static fn (Version $version): int => $version->triangles, array_values($versions)),
                array_column($known[$number], 'triangles'),
            );
            foreach ($known[$number] as $at => $entry) {
                self::assertEqualsWithDelta($versions[$at + 1]->error, $entry['error'], 1e-6 * (1 + $entry['error']));
                self::assertSame([$at === 1, true], [$entry['coarse'], in_array($entry['pack'], [4, 5], true)]);
            }
        }
    }

    public function test_a_part_of_a_pack_holds_what_it_names_and_no_byte_of_the_rest(): void
    {
        $writer = new PackWriter;
        foreach ([7 => 1.0, 8 => 2.7, 9 => 40.0] as $number => $size) {
            $mesh = self::pipe(20 + $number, 16, $size);
            $writer->add($number, $mesh, [0 => 100 + $number]);
            $version = Versions::careful(self::packed($mesh))[0];
            $writer->addVersion($number, 1, $version->shape);
        }
        $pack = $writer->finish();
        foreach ([[], [8], [7, 9], [7, 8, 9], [4]] as $wanted) {
            $parted = PackPart::of($pack, array_fill_keys($wanted, true));
            if ($wanted === [] || $wanted === [4]) {
                self::assertNull($parted);
                continue;
            }
            [$part, $materials] = $parted ?? self::fail('there is nothing in it');
            [$from, $to] = [new PackReader($pack), new PackReader($part)];
            $held = [];
            foreach ($from->holds() as [$number, $version]) {
                $is = in_array($number, $wanted, true);
                self::assertEquals($is ? $from->packed($number, $version) : null, $to->packed($number, $version));
                $held = [...$held, ...$is ? array_column($from->packed($number, $version)->pieces ?? [], 'material') : []];
                foreach ($is ? [] : $from->packed($number, $version)->pieces ?? [] as $piece) {
                    self::assertFalse(strlen($piece->positions) > 400 && str_contains($part, $piece->positions));
                }
            }
            self::assertEqualsCanonicalizing(array_unique($held), array_keys($materials));
        }
        self::assertNull(PackPart::of(substr($pack, 0, -1), [7 => true]), 'one that is cut');
    }

    /** @param list<Primitive> $primitives */
    private static function packed(array $primitives): PackedShape
    {
        $writer = new PackWriter;
        $writer->add(1, $primitives, []);

        return (new PackReader($writer->finish()))->packed(1) ?? throw new \LogicException;
    }

    /** @return list<Primitive> the side of a pipe, and its two ends as one piece */
    private static function pipe(int $rings, int $around, float $size): array
    {
        $at = static fn (int $turn): array => [cos((2 * M_PI * $turn) / $around), sin((2 * M_PI * $turn) / $around)];
        $places = $normals = $uvs = $indices = [];
        for ($ring = 0; $ring <= $rings; $ring++) {
            for ($turn = 0; $turn <= $around; $turn++) {
                [$x, $y] = $at($turn);
                array_push($places, $size * 0.2 * $x, $size * 0.2 * $y, ($size * $ring) / $rings);
                array_push($normals, $x, $y, 0.0);
                array_push($uvs, $turn / $around, $ring / $rings);
                if ($ring < $rings && $turn < $around) {
                    $a = $ring * ($around + 1) + $turn;
                    array_push($indices, $a, $a + 1, $a + $around + 1, $a + 1, $a + $around + 2, $a + $around + 1);
                }
            }
        }
        $side = [pack('g*', ...$places), pack('V*', ...$indices), pack('g*', ...$normals), pack('g*', ...$uvs)];
        $places = $normals = $uvs = $indices = [];
        foreach ([0, 1] as $end) {
            $first = intdiv(count($places), 3);
            array_push($places, 0.0, 0.0, $size * $end);
            array_push($normals, 0.0, 0.0, 2 * $end - 1);
            array_push($uvs, 0.5, 0.5);
            for ($turn = 0; $turn < $around; $turn++) {
                [$x, $y] = $at($turn);
                array_push($places, $size * 0.2 * $x, $size * 0.2 * $y, $size * $end);
                array_push($normals, 0.0, 0.0, 2 * $end - 1);
                array_push($uvs, 0.5 + $x / 2, 0.5 + $y / 2);
                [$from, $to] = [$first + 1 + $turn, $first + 1 + (($turn + 1) % $around)];
                array_push($indices, $first, ...$end === 1 ? [$from, $to] : [$to, $from]);
            }
        }
        $ends = [pack('g*', ...$places), pack('V*', ...$indices), pack('g*', ...$normals), pack('g*', ...$uvs)];

        return [new Primitive(PrimitiveKind::Triangles, ...$side), new Primitive(PrimitiveKind::Triangles, ...$ends)];
    }

    /** @return list<string> everything of each vertex, with its piece */
    private static function vertices(PackedShape $shape): array
    {
        $all = [];
        foreach ($shape->pieces as $number => $piece) {
            for ($at = 0; $at < $piece->vertices(); $at++) {
                $each = $piece->normalBytes();
                $all[] = implode(':', [
                    $number,
                    bin2hex(substr($piece->positions, 8 * $at, 8)),
                    bin2hex(substr((string) $piece->normals, $each * $at, $each)),
                    bin2hex(substr((string) $piece->uvs, 8 * $at, 8)),
                ]);
            }
        }

        return $all;
    }

    /** @return list<list<array{u: float, normal: array{float, float, float}}>> the corners of each triangle */
    private static function triangles(PackedPiece $piece): array
    {
        $indices = array_values((array) unpack($piece->wide ? 'V*' : 'v*', $piece->indices));

        return array_chunk(
            array_map(static function (int $vertex) use ($piece): array {
                $normal = array_values((array) unpack('c3', (string) $piece->normals, 4 * $vertex));
                ['u' => $u] = (array) unpack('gu', (string) $piece->uvs, 8 * $vertex);

                return ['u' => (float) $u, 'normal' => array_map(static fn (int $part): float => $part / 127, $normal)];
            }, $indices),
            3,
        );
    }
}
