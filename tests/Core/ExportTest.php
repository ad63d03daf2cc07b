<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use Tests\Core\Support\Node;
use VineShelf\Export\GltfExport;
use VineShelf\Export\MeshoptPacker;
use VineShelf\Export\Metres;
use VineShelf\Export\Part;
use VineShelf\Export\Shapes;
use VineShelf\Export\Surfaces;
use VineShelf\Formats\Files;
use VineShelf\Formats\Gltf\Meshopt;
use VineShelf\Formats\Intake;
use VineShelf\Formats\SortedExtras;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\FileTooLong;
use VineShelf\Geometry\GlbWriter;
use VineShelf\Geometry\PackedPiece;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\Primitive;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Kind;

/** What is written is read back the same, by us and by the public validator. */
final class ExportTest extends TestCase implements Shapes, Surfaces
{
    private const SAMPLERS = [
        [],
        ['wrapS' => 33071, 'wrapT' => 33648],
        ['magFilter' => 9728, 'minFilter' => 9984, 'wrapS' => 10497, 'wrapT' => 10497],
        ['minFilter' => 9987],
    ];

    /** @var array<int, PackedShape> */
    private array $shapes = [];

    /** @var list<Part> */
    private array $parts = [];

    #[TestWith([false, false])]
    #[TestWith([true, false])]
    #[TestWith([false, true])]
    #[TestWith([true, true])]
    public function test_random_objects_are_read_back_the_same(bool $isQuantized, bool $isCompressed): void
    {
        mt_srand($isQuantized ? 5 : 6);
        foreach ([0, 1, 5, 60, 60] as $count) {
            $this->grow($count);
            $export = new GltfExport($this, $this, $isQuantized, $isCompressed);
            array_map($export->add(...), $this->parts);
            $path = Gltf::keep($export->bytes(), '.glb');
            $counted = Node::run('count.mjs', $path, 'validate');
            self::assertSame([0, 0], [$counted['errors'], $counted['warnings']], (string) json_encode($counted['messages']));
            $this->assertSameAs(Files::open($path));
        }
    }

    public function test_compressed_views_are_unpacked_by_our_reader_and_by_the_public_decoder(): void
    {
        mt_srand(7);
        $cases = $sums = [];
        foreach ([4, 8, 12, 16, 64] as $stride) {
            foreach ([1, 15, 16, 17, 300, 2000] as $count) {
                $bytes = '';
                for ($at = 0; $at < $count * $stride; $at++) {
                    $bytes .= chr([0, mt_rand(0, 3), mt_rand(0, 255), intdiv($at, 7) & 255][intdiv($at, 90) % 4]);
                }
                $packed = MeshoptPacker::attributes($bytes, $stride);
                self::assertSame($bytes, Meshopt::decode($packed, $count, $stride, 'ATTRIBUTES', 'NONE'));
                $cases[] = ['packed' => base64_encode($packed), 'count' => $count, 'stride' => $stride, 'mode' => 'ATTRIBUTES'];
                $sums[] = md5($bytes);
            }
        }
        foreach ([3, 99, 3000] as $count) {
            $indices = [];
            for ($at = 0; $at < $count; $at++) {
                $indices[] = mt_rand(0, 3) === 0 ? mt_rand(0, 1_000_000_000) : intdiv($at, 2);
            }
            $packed = MeshoptPacker::indices($indices);
            self::assertSame(pack('V*', ...$indices), Meshopt::decode($packed, $count, 4, 'INDICES', 'NONE'));
            $cases[] = ['packed' => base64_encode($packed), 'count' => $count, 'stride' => 4, 'mode' => 'INDICES'];
            $sums[] = md5(pack('V*', ...$indices));
        }
        $path = Gltf::keep((string) json_encode($cases), '.json');
        self::assertSame($sums, Node::run('unpack.mjs', $path));
    }

    public function test_a_skewed_and_mirrored_part_faces_as_it_did(): void
    {
        $this->shapes = [1 => self::piece(3, true, true, [1, 1, 1])];
        $skewed = [1.0, 0.7, 0.0, 5.0, 0.0, -1.0, 0.3, 6.0, 0.2, 0.0, 2.0, 7.0];
        $this->parts = [new Part(-1, 'skewed', Kind::Part, 1, Rung::Full, [$skewed], [])];
        $export = new GltfExport($this, $this);
        $export->add($this->parts[0]);
        $intake = Files::open(Gltf::keep($export->bytes(), '.glb'));
        $this->assertSameAs($intake);
        // Each triangle still goes round as its normals say, seen in the world.
        [$primitive] = $intake->primitives(0);
        $places = array_chunk(array_values((array) unpack('g*', $primitive->positions)), 3);
        $normals = array_chunk(array_values((array) unpack('g*', (string) $primitive->normals)), 3);
        foreach (array_chunk(array_values((array) unpack('V*', $primitive->indices)), 3) as [$a, $b, $c]) {
            $u = array_map(static fn (float $p, float $q): float => $q - $p, $places[$a], $places[$b]);
            $v = array_map(static fn (float $p, float $q): float => $q - $p, $places[$a], $places[$c]);
            $n = [$u[1] * $v[2] - $u[2] * $v[1], $u[2] * $v[0] - $u[0] * $v[2], $u[0] * $v[1] - $u[1] * $v[0]];
            $along = $n[0] * $normals[$a][0] + $n[1] * $normals[$a][1] + $n[2] * $normals[$a][2];
            self::assertGreaterThan(0.0, $along);
        }
    }

    public function test_what_stands_in_a_part_is_where_it_was(): void
    {
        mt_srand(9);
        $this->shapes = [1 => self::piece(3, true, true, [1, 1, 1])];
        for ($round = 0; $round < 20; $round++) {
            [$outer, $inner] = [self::placement(), self::placement()];
            $twice = [$inner, self::placement()];
            $export = new GltfExport($this, $this);
            $holder = $export->add(new Part(-1, 'outer', Kind::Part, 1, Rung::Full, $round % 2 === 0 ? [$outer] : $twice, [], holds: true));
            $export->add(new Part($holder, 'inner', Kind::Marker, 0, Rung::Full, [$inner], []));
            $intake = Files::open(Gltf::keep($export->bytes(), '.glb'));
            $objects = $intake->objects();
            $row = (int) array_search('inner', $objects->names, true);
            self::assertSame('outer', $objects->names[$objects->parents[$row]]);
            foreach ($objects->placements($row)[0] as $at => $value) {
                self::assertEqualsWithDelta($inner[$at], $value, 1e-5 * (1 + abs($inner[$at])), "round $round, entry $at");
            }
        }
    }

    public function fine(int $mesh): ?PackedShape
    {
        return $this->shapes[$mesh] ?? null;
    }

    public function coarse(int $mesh): ?PackedShape
    {
        return $this->shapes[$mesh + 100] ?? ($this->shapes[$mesh] ?? null);
    }

    public function material(int $number): ?array
    {
        return $number === 9
            ? null
            : [
                'name' => "Material $number",
                'colour' => [0.5, 0.25, 0.125, $number === 2 ? 0.5 : 1.0],
                'texture' => $number >= 3 ? $number : null,
                'metallic' => 0.0,
                'roughness' => 0.8,
                'alpha' => ['OPAQUE', 'OPAQUE', 'BLEND', 'MASK'][$number] ?? 'OPAQUE',
                'cutoff' => 0.4,
                'doubleSided' => $number === 2,
                'unlit' => $number === 1,
                'emission' => [0.0, 0.0, $number === 2 ? 0.5 : 0.0],
                'normalMap' => null,
                'normalScale' => 1.0,
            ];
    }

    public function picture(int $number): array
    {
        $png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

        return ['image/png', (string) base64_decode($png, true), self::SAMPLERS[$number - 3]];
    }

    private function assertSameAs(Intake $intake): void
    {
        $objects = $intake->objects();
        $at = array_keys($this->parts);
        self::assertCount($objects->count(), $this->parts);
        foreach ($at as $index) {
            $part = $this->parts[$index];
            $row = array_search("$part->name", $objects->names, true);
            self::assertIsInt($row, $part->name);
            self::assertSame($part->parent < 0 ? '' : $this->parts[$part->parent]->name, $objects->names[$objects->parents[$row]]);
            $sorted = $objects->sorted[$row] ?? null;
            $properties = json_decode($objects->properties[$row] ?? '[]', true);
            self::assertEquals(
                $part->extras + self::about($part) + ($sorted->given ?? []),
                (array) $properties + self::extras($sorted),
                $part->name,
            );
            $shape = $part->mesh === 0 ? null : $this->shown($part);
            self::assertSame($shape === null ? -1 : 0, min(0, $objects->meshes[$row]), $part->name);
            if ($shape !== null) {
                $this->assertPlaces($part, $shape, $intake, $row);
            }
        }
    }

    /** @return array<string, mixed> what a light or a camera is like, as readers say it */
    private static function about(Part $part): array
    {
        return match ($part->kind) {
            Kind::Light => ['light' => $part->about],
            Kind::Camera => ['camera' => $part->about],
            default => [],
        };
    }

    /** @return array<string, mixed> */
    private static function extras(?SortedExtras $sorted): array
    {
        return $sorted === null
            ? []
            : [SortedExtras::KEY => array_filter(['layer' => $sorted->layer, 'tags' => $sorted->tags, 'properties' => $sorted->given])];
    }

    private function shown(Part $part): ?PackedShape
    {
        return match ($part->rung) {
            Rung::Hidden => null,
            Rung::Coarse, Rung::Ghost => $this->coarse($part->mesh),
            default => $this->fine($part->mesh),
        };
    }

    /** In the world, every vertex is where it was, and there are as many triangles. */
    private function assertPlaces(Part $part, PackedShape $shape, Intake $intake, int $row): void
    {
        $objects = $intake->objects();
        $primitives = $intake->primitives($objects->meshes[$row]);
        if ($part->rung === Rung::Box) {
            $triangles = array_sum(array_map(static fn (Primitive $one): int => $one->triangles(), $primitives));
            self::assertContains($triangles, [12, 12 * count($part->placements)]);

            return;
        }
        $read = [];
        foreach ($objects->placements($row) as $m) {
            foreach ($primitives as $primitive) {
                array_push($read, ...self::moved(array_values((array) unpack('g*', $primitive->positions)), $m));
            }
        }
        $wanted = [];
        foreach ($part->placements as $m) {
            foreach ($shape->pieces as $piece) {
                array_push($wanted, ...self::moved(Metres::places($shape, $piece), $m));
            }
        }
        self::assertEqualsWithDelta($wanted, $read, 2e-3, $part->name);
        // What is skewed in one of several placements is there as often as it is placed.
        $pieces = array_merge(...array_fill(0, intdiv(count($primitives), count($shape->pieces)), $shape->pieces));
        self::assertSame(
            array_map(static fn (PackedPiece $piece): array => [$piece->triangles(), $piece->normals !== null], $pieces),
            array_map(static fn (Primitive $one): array => [$one->triangles(), $one->normals !== null], $primitives),
        );
    }

    /**
     * @param array<mixed> $places
     * @param list<float>  $m
     *
     * @return list<float>
     */
    private static function moved(array $places, array $m): array
    {
        $moved = [];
        foreach (array_chunk($places, 3) as [$x, $y, $z]) {
            foreach ([0, 4, 8] as $r) {
                $moved[] = $m[$r] * $x + $m[$r + 1] * $y + $m[$r + 2] * $z + $m[$r + 3];
            }
        }

        return $moved;
    }

    private function grow(int $count): void
    {
        $this->shapes = $this->parts = [];
        for ($mesh = 1; $mesh <= 6; $mesh++) {
            $this->shapes[$mesh] = self::piece(mt_rand(1, 5), $mesh % 2 === 0, $mesh % 3 !== 0, [1, mt_rand(1, 3), 9]);
            if ($mesh > 3) {
                $this->shapes[$mesh + 100] = self::piece(1, $mesh % 2 === 0, true, [1]);
            }
        }
        $holders = [];
        for ($at = 0; $at < $count; $at++) {
            $kind = [Kind::Group, Kind::Part, Kind::Part, Kind::Part, Kind::Marker, Kind::Light, Kind::Camera][mt_rand(0, 6)];
            $placements = [];
            for ($times = $kind === Kind::Part && mt_rand(0, 3) === 0 ? 3 : 1; $times > 0; $times--) {
                $placements[] = self::placement($kind === Kind::Part);
            }
            $parent = $at === 0 || mt_rand(0, 2) === 0 ? -1 : mt_rand(0, $at - 1);
            $holders[$parent] = true;
            $about = match ($kind) {
                Kind::Light => self::light(),
                Kind::Camera => ['type' => 'perspective', 'yfov' => 0.5, 'znear' => 0.25],
                default => [],
            };
            $sorted = new SortedExtras(
                mt_rand(0, 3) === 0 ? [] : ['Stands / all', 'Seats'],
                mt_rand(0, 1) === 0 ? [] : [['Phases', 'First'], ['Wet; dry']],
                mt_rand(0, 2) === 0 ? ['fire' => 'EI 30'] : [],
            );
            $file = $kind === Kind::Part ? ['layer' => 'Theirs', 'tags' => ['a'], 'flow' => 42.5, 'ünïcode' => "quote \" and\nline"] : [];
            $mesh = $kind === Kind::Part ? mt_rand(1, 6) : 0;
            $name = "Object $at <img src=x onerror=alert(1)>";
            $this->parts[] = new Part($parent, $name, $kind, $mesh, Rung::from(mt_rand(1, 5)), $placements, $sorted->beside($file), $about);
        }
        foreach ($this->parts as $at => $part) {
            if (isset($holders[$at])) {
                $this->parts[$at] = new Part(
                    $part->parent,
                    $part->name,
                    $part->kind,
                    $part->mesh,
                    $part->rung,
                    $part->placements,
                    $part->extras,
                    $part->about,
                    true,
                );
            }
        }
    }

    /** @return array<string, mixed> */
    private static function light(): array
    {
        $type = ['spot', 'point', 'directional'][mt_rand(0, 2)];

        return ['type' => $type, 'colour' => [1, 0.5, 0.25], 'intensity' => 40] +
            ($type !== 'directional' && mt_rand(0, 1) === 0 ? ['range' => 7.5] : []) +
            ($type === 'spot' && mt_rand(0, 1) === 0 ? ['innerCone' => 0.125, 'outerCone' => 0.5] : []);
    }

    public function test_textures_are_wrapped_and_filtered_as_they_were_and_each_picture_is_there_once(): void
    {
        $this->shapes = [1 => self::piece(1, true, true, [3, 4, 5, 6])];
        $this->parts = [new Part(-1, 'tiled', Kind::Part, 1, Rung::Full, [Affine::IDENTITY], [])];
        $export = new GltfExport($this, $this);
        $export->add($this->parts[0]);
        $path = Gltf::keep($export->bytes(), '.glb');
        $counted = Node::run('count.mjs', $path, 'validate');
        self::assertSame([0, 0], [$counted['errors'], $counted['warnings']], (string) json_encode($counted['messages']));
        $intake = Files::open($path);
        $read = [];
        foreach ($intake->materials() as $material) {
            self::assertNotNull($material->texture);
            $read[$material->name] = $intake->textures()[$material->texture]->sampler;
        }
        ksort($read);
        self::assertEquals(array_combine(['Material 3', 'Material 4', 'Material 5', 'Material 6'], self::SAMPLERS), $read);
        self::assertSame(1, substr_count($export->bytes(), 'image/png'), 'the picture is the same');
    }

    public function test_a_file_that_its_format_cannot_say_the_length_of_is_refused_as_soon_as_that_is_clear(): void
    {
        foreach ([120, 300] as $most) {
            $writer = new GlbWriter(most: $most);
            try {
                $writer->view(str_repeat('x', 100));
                $writer->view(str_repeat('x', 100));
                $writer->bytes();
                self::fail('It is too long.');
            } catch (FileTooLong $reason) {
                self::assertStringContainsString('export fewer objects', $reason->getMessage());
            }
        }
    }

    /** @return array{float, float, float, float, float, float, float, float, float, float, float, float} turned, scaled, skewed */
    private static function placement(bool $isAny = true): array
    {
        $m = Affine::compose(
            [mt_rand(-9000, 9000) / 10, mt_rand(-9000, 9000) / 10, mt_rand(-90, 90) / 10],
            [mt_rand(-9, 9) / 9, mt_rand(-9, 9) / 9, mt_rand(-9, 9) / 9, mt_rand(1, 9) / 9],
            $isAny && mt_rand(0, 2) > 0
                ? [mt_rand(1, 30) / 10, (mt_rand(0, 3) === 0 ? -1 : 1) * (mt_rand(1, 30) / 10), mt_rand(1, 30) / 10]
                : [1.0, 1.0, 1.0],
        );

        return $isAny && mt_rand(0, 4) === 0 ? Affine::product($m, [1.0, 0.4, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.1, 0.0, 1.0, 0.0]) : $m;
    }

    /**
     * Balls, one piece for each material.
     *
     * @param list<int> $materials
     */
    private static function piece(int $rings, bool $isEven, bool $hasNormals, array $materials): PackedShape
    {
        $scale = $isEven ? [1.5, 1.5, 1.5] : [6.0, 0.75, 1.5];
        $pieces = [];
        foreach ($materials as $material) {
            $places = $normals = $uvs = $indices = [];
            [$down, $around] = [$rings + 1, $rings + 3];
            for ($ring = 0; $ring <= $down; $ring++) {
                for ($turn = 0; $turn < $around; $turn++) {
                    [$p, $t] = [(M_PI * ($ring + 0.3)) / ($down + 0.6), (2 * M_PI * $turn) / $around];
                    $way = [sin($p) * cos($t), sin($p) * sin($t), cos($p)];
                    foreach ($way as $axis => $part) {
                        $places[] = (int) round(32767 * $part * 0.9);
                        // Normals of an ellipsoid, as packs have them: scaled beforehand where the axes differ.
                        $normals[] = $isEven ? (int) round(127 * $part) : $part / $scale[$axis];
                    }
                    $places[] = 0;
                    $isEven && ($normals[] = 0);
                    array_push($uvs, $turn / $around, $ring / $down);
                    if ($ring < $down) {
                        [$a, $b] = [$ring * $around + $turn, $ring * $around + (($turn + 1) % $around)];
                        array_push($indices, $a, $a + $around, $b, $b, $a + $around, $b + $around);
                    }
                }
            }
            if (! $isEven) {
                $normals = array_merge(
                    ...array_map(static function (array $n) use ($scale): array {
                        $n = [$n[0] * $scale[0], $n[1] * $scale[1], $n[2] * $scale[2]];
                        $length = sqrt($n[0] ** 2 + $n[1] ** 2 + $n[2] ** 2);

                        return [...array_map(static fn (float $part): int => (int) round((32767 * $part) / $length), $n), 0];
                    }, array_chunk($normals, 3)),
                );
            }
            $pieces[] = new PackedPiece(
                PrimitiveKind::Triangles,
                pack('s*', ...$places),
                pack('v*', ...$indices),
                false,
                $hasNormals ? pack($isEven ? 'c*' : 's*', ...$normals) : null,
                pack('g*', ...$uvs),
                $material === 2 ? str_repeat("\xff\x80\x40\xff", intdiv(count($places), 4)) : null,
                $material,
            );
        }

        return new PackedShape([10.0, -4.0, 2.5], $scale, $pieces);
    }
}
