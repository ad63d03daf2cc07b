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
     * @param array{float, float, float} $centre
     * @param array{float, float, float} $scale
     * @param array<int, int>            $materials
     *
     * @return array<string, mixed>
     */
    private function primitive(Primitive $primitive, Box $box, array $centre, array $scale, array $materials, \HashContext $hash): array
    {
        $count = $primitive->vertices();
        $even = $scale[0] === $scale[1] && $scale[1] === $scale[2];
        $positions = Quantizer::positions($primitive->positions, $centre, $scale);
        $place = [$this->file->size(), strlen($positions)];
        hash_update($hash, pack('C3V', $primitive->kind->value, $even, $primitive->material === null, $primitive->material ?? 0));
        $attributes = [
            'POSITION' => $this->file->accessor(
                $this->view($positions, 34962, 8, $hash),
                5122,
                'VEC3',
                $count,
                ['normalized' => true] + self::range($box, $centre, $scale),
            ),
        ];
        if ($primitive->normals !== null) {
            $normals = $even ? Quantizer::normals($primitive->normals) : Quantizer::longNormals($primitive->normals, $scale);
            $view = $this->view($normals, 34962, $even ? 4 : 8, $hash);
            $attributes['NORMAL'] = $this->file->accessor($view, $even ? 5120 : 5122, 'VEC3', $count, ['normalized' => true]);
        }
        if ($primitive->uvs !== null) {
            $attributes['TEXCOORD_0'] = $this->file->accessor($this->view($primitive->uvs, 34962, 8, $hash), 5126, 'VEC2', $count);
        }
        if ($primitive->colours !== null) {
            $attributes['COLOR_0'] = $this->file->accessor($this->view($primitive->colours, 34962, 4, $hash), 5121, 'VEC4', $count, [
                'normalized' => true,
            ]);
        }
        [$indices, $type] = Quantizer::indices($primitive->indices, $count);
        $this->pieces[] = [
            'kind' => $primitive->kind->value,
            'wide' => $type === 5125,
            'positions' => $place,
            'indices' => [$this->file->size(), strlen($indices)],
        ];
        $entry = [
            'attributes' => $attributes,
            'indices' => $this->file->accessor(
                $this->view($indices, 34963, 0, $hash),
                $type,
                'SCALAR',
                intdiv(strlen($primitive->indices), 4),
            ),
            'mode' => $primitive->kind->value,
        ];
        $material = $primitive->material === null ? null : $materials[$primitive->material] ?? null;
        if ($material !== null) {
            $entry['extras'] = ['material' => $material];
        }

        return $entry;
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
