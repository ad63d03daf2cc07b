<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * Collects meshes into one pack: binary glTF with quantized vertices. Each mesh is a node whose translation and scale undo the
 * quantization; the node's `extras.mesh` is the mesh's number, the primitive's `extras.material` its material's number.
 *
 * A vertex is off by at most 0.08 mm in meshes up to 10 m, which have one scale for all three axes. Larger ones have a scale for each axis,
 * and are off by at most 1/131,000 of their side along it; their normals are longer, since such a scale turns normals as well.
 */
final class PackWriter
{
    /** Half of the longest side up to which one scale does for all axes, metres. */
    private const FINE = 5.0;

    private readonly GlbWriter $file;

    private int $bytes = 0;

    /** @var list<int> */
    private array $nodes = [];

    /** @var list<array{kind: int, wide: bool, positions: array{int, int}, indices: array{int, int}}> of the mesh that is being added */
    private array $pieces = [];

    public function __construct()
    {
        $this->file = new GlbWriter;
        $this->file->uses('KHR_mesh_quantization', required: true);
    }

    /** Bytes collected so far. */
    public function size(): int
    {
        return $this->bytes;
    }

    /**
     * @param list<Primitive>    $primitives
     * @param array<int, int>    $materials  material number by the source's own index
     */
    public function add(int $number, array $primitives, array $materials): PackedMesh
    {
        $box = new Box;
        $boxes = [];
        foreach ($primitives as $index => $primitive) {
            $boxes[$index] = Box::around($primitive->positions);
            $box = $box->with($boxes[$index]);
        }
        if ($box->isEmpty()) {
            return new PackedMesh($number, $box, 0, 0, 0, hash('xxh128', ''), '');
        }
        $centre = [($box->minX + $box->maxX) / 2, ($box->minY + $box->maxY) / 2, ($box->minZ + $box->maxZ) / 2];
        $half = [($box->maxX - $box->minX) / 2, ($box->maxY - $box->minY) / 2, ($box->maxZ - $box->minZ) / 2];
        $reach = max($half) ?: 1e-6;
        $scale = $reach <= self::FINE ? [$reach, $reach, $reach] : array_map(static fn (float $side): float => $side ?: 1e-6, $half);
        $before = $this->bytes;
        $hash = hash_init('xxh128');
        hash_update($hash, pack('e6', ...$centre, ...$scale));
        $entries = [];
        $this->pieces = [];
        $triangles = $vertices = 0;
        foreach ($primitives as $index => $primitive) {
            $entries[] = $this->primitive($primitive, $boxes[$index], $centre, $scale, $materials, $hash);
            $triangles += $primitive->triangles();
            $vertices += $primitive->vertices();
        }
        $mesh = $this->file->add('meshes', ['primitives' => $entries]);
        $this->nodes[] = $this->file->add('nodes', [
            'mesh' => $mesh,
            'translation' => $centre,
            'scale' => $scale,
            'extras' => ['mesh' => $number],
        ]);

        $shape = ShapeIndex::entry($number, $scale, $this->pieces);

        return new PackedMesh($number, $box, $triangles, $vertices, $this->bytes - $before, hash_final($hash), $shape);
    }

    public function finish(): string
    {
        $this->file->add('scenes', ['nodes' => $this->nodes]);
        $this->file->set('scene', 0);

        return $this->file->bytes();
    }

    /**
     * A coarser version of a mesh, made of what stands in a pack already: its places are counted as the mesh's are.
     *
     * @param int $version from 1 on, the finest first
     *
     * @return array{vertices: int, bytes: int}
     */
    public function addVersion(int $number, int $version, PackedShape $shape): array
    {
        $before = $this->bytes;
        $hash = hash_init('xxh128');
        $this->pieces = [];
        $entries = array_map(fn (PackedPiece $piece): array => $this->piece($piece, self::reach($piece->positions), $hash), $shape->pieces);
        $this->nodes[] = $this->file->add('nodes', [
            'mesh' => $this->file->add('meshes', ['primitives' => $entries]),
            'translation' => $shape->centre,
            'scale' => $shape->scale,
            'extras' => ['mesh' => $number, 'version' => $version],
        ]);

        return ['vertices' => $shape->vertices(), 'bytes' => $this->bytes - $before];
    }

    /** A mesh made of what stands in a pack already, its places counted as they are there. @param Box $box that counts as its own */
    public function addShape(int $number, PackedShape $shape, Box $box): PackedMesh
    {
        $before = $this->bytes;
        $hash = hash_init('xxh128');
        hash_update($hash, pack('e6', ...$shape->centre, ...$shape->scale));
        $this->pieces = [];
        $entries = array_map(fn (PackedPiece $piece): array => $this->piece($piece, self::reach($piece->positions), $hash), $shape->pieces);
        $this->nodes[] = $this->file->add('nodes', [
            'mesh' => $this->file->add('meshes', ['primitives' => $entries]),
            'translation' => $shape->centre,
            'scale' => $shape->scale,
            'extras' => ['mesh' => $number],
        ]);
        $entry = ShapeIndex::entry($number, $shape->scale, $this->pieces);

        return new PackedMesh($number, $box, $shape->triangles(), $shape->vertices(), $this->bytes - $before, hash_final($hash), $entry);
    }

    /**
     * @param array{float, float, float} $centre
     * @param array{float, float, float} $scale
     * @param array<int, int>            $materials
     *
     * @return array<string, mixed>
     */
    private function primitive(Primitive $primitive, Box $box, array $centre, array $scale, array $materials, \HashContext $hash): array
    {
        $even = $scale[0] === $scale[1] && $scale[1] === $scale[2];
        hash_update($hash, pack('C3V', $primitive->kind->value, $even, $primitive->material === null, $primitive->material ?? 0));
        [$indices, $type] = Quantizer::indices($primitive->indices, $primitive->vertices());
        $piece = new PackedPiece(
            $primitive->kind,
            Quantizer::positions($primitive->positions, $centre, $scale),
            $indices,
            $type === 5125,
            $primitive->normals === null
                ? null
                : ($even
                    ? Quantizer::normals($primitive->normals)
                    : Quantizer::longNormals($primitive->normals, $scale)),
            $primitive->uvs,
            $primitive->colours,
            $primitive->material === null ? 0 : $materials[$primitive->material] ?? 0,
        );

        return $this->piece($piece, self::range($box, $centre, $scale), $hash);
    }

    /**
     * @param array{min: list<int>, max: list<int>} $range
     *
     * @return array<string, mixed>
     */
    private function piece(PackedPiece $piece, array $range, \HashContext $hash): array
    {
        $count = $piece->vertices();
        $place = [$this->file->size(), strlen($piece->positions)];
        $attributes = [
            'POSITION' => $this->file->accessor(
                $this->view($piece->positions, 34962, 8, $hash),
                5122,
                'VEC3',
                $count,
                ['normalized' => true] + $range,
            ),
        ];
        if ($piece->normals !== null) {
            $each = $piece->normalBytes();
            $view = $this->view($piece->normals, 34962, $each, $hash);
            $attributes['NORMAL'] = $this->file->accessor($view, $each === 4 ? 5120 : 5122, 'VEC3', $count, ['normalized' => true]);
        }
        if ($piece->uvs !== null) {
            $attributes['TEXCOORD_0'] = $this->file->accessor($this->view($piece->uvs, 34962, 8, $hash), 5126, 'VEC2', $count);
        }
        if ($piece->colours !== null) {
            $attributes['COLOR_0'] = $this->file->accessor($this->view($piece->colours, 34962, 4, $hash), 5121, 'VEC4', $count, [
                'normalized' => true,
            ]);
        }
        $this->pieces[] = [
            'kind' => $piece->kind->value,
            'wide' => $piece->wide,
            'positions' => $place,
            'indices' => [$this->file->size(), strlen($piece->indices)],
        ];
        $entry = [
            'attributes' => $attributes,
            'indices' => $this->file->accessor(
                $this->view($piece->indices, 34963, 0, $hash),
                $piece->wide ? 5125 : 5123,
                'SCALAR',
                intdiv(strlen($piece->indices), $piece->wide ? 4 : 2),
            ),
            'mode' => $piece->kind->value,
        ];

        return $piece->material === 0 ? $entry : $entry + ['extras' => ['material' => $piece->material]];
    }

    /**
     * The least and greatest places of quantized vertices.
     *
     * @return array{min: list<int>, max: list<int>}
     */
    private static function reach(string $positions): array
    {
        /** @var list<int> $n */
        $n = array_values(unpack('s*', $positions) ?: []);
        [$min, $max] = [[Shape::STEPS, Shape::STEPS, Shape::STEPS], [-Shape::STEPS, -Shape::STEPS, -Shape::STEPS]];
        for ($at = 0, $count = count($n); $at < $count; $at += 4) {
            for ($axis = 0; $axis < 3; $axis++) {
                $min[$axis] = min($min[$axis], $n[$at + $axis]);
                $max[$axis] = max($max[$axis], $n[$at + $axis]);
            }
        }

        return ['min' => $min, 'max' => $max];
    }

    private function view(string $bytes, int $target, int $stride, \HashContext $hash): int
    {
        hash_update($hash, $bytes);
        $this->bytes += strlen($bytes);

        return $this->file->view($bytes, $target, $stride);
    }

    /**
     * Rounding keeps the order, so the least and greatest places are those of the box.
     *
     * @param array{float, float, float} $centre
     * @param array{float, float, float} $scale
     *
     * @return array{min: list<int>, max: list<int>}
     */
    private static function range(Box $box, array $centre, array $scale): array
    {
        $at = static fn (float $place, int $axis): int => (int) round(($place - $centre[$axis]) * (32767 / $scale[$axis]));

        return [
            'min' => [$at($box->minX, 0), $at($box->minY, 1), $at($box->minZ, 2)],
            'max' => [$at($box->maxX, 0), $at($box->maxY, 1), $at($box->maxZ, 2)],
        ];
    }
}
