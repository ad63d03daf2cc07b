<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * Collects meshes into one pack: binary glTF with quantized vertices. Each mesh is a node whose translation and scale undo the
 * quantization; the node's `extras.mesh` is the mesh's number, the primitive's `extras.material` its material's number.
 */
final class PackWriter
{
    private readonly GlbWriter $file;

    private int $bytes = 0;

    /** @var list<int> */
    private array $nodes = [];

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
            return new PackedMesh($number, $box, 0, 0, 0, hash('xxh128', ''));
        }
        $centre = [($box->minX + $box->maxX) / 2, ($box->minY + $box->maxY) / 2, ($box->minZ + $box->maxZ) / 2];
        $reach = max($box->maxX - $box->minX, $box->maxY - $box->minY, $box->maxZ - $box->minZ) / 2 ?: 1e-6;
        $before = $this->bytes;
        $hash = hash_init('xxh128');
        $entries = [];
        $triangles = $vertices = 0;
        foreach ($primitives as $index => $primitive) {
            $entries[] = $this->primitive($primitive, $boxes[$index], $centre, $reach, $materials, $hash);
            $triangles += $primitive->triangles();
            $vertices += $primitive->vertices();
        }
        $mesh = $this->file->add('meshes', ['primitives' => $entries]);
        $this->nodes[] = $this->file->add('nodes', [
            'mesh' => $mesh,
            'translation' => $centre,
            'scale' => [$reach, $reach, $reach],
            'extras' => ['mesh' => $number],
        ]);

        return new PackedMesh($number, $box, $triangles, $vertices, $this->bytes - $before, hash_final($hash));
    }

    public function finish(): string
    {
        $this->file->add('scenes', ['nodes' => $this->nodes]);
        $this->file->set('scene', 0);

        return $this->file->bytes();
    }

    /**
     * @param array{float, float, float} $centre
     * @param array<int, int>            $materials
     *
     * @return array<string, mixed>
     */
    private function primitive(Primitive $primitive, Box $box, array $centre, float $reach, array $materials, \HashContext $hash): array
    {
        $count = $primitive->vertices();
        $positions = Quantizer::positions($primitive->positions, $centre[0], $centre[1], $centre[2], $reach);
        $attributes = [
            'POSITION' => $this->file->accessor(
                $this->view($positions, 34962, 8, $hash),
                5122,
                'VEC3',
                $count,
                ['normalized' => true] + self::range($box, $centre, $reach),
            ),
        ];
        if ($primitive->normals !== null) {
            $attributes['NORMAL'] = $this->file->accessor(
                $this->view(Quantizer::normals($primitive->normals), 34962, 4, $hash),
                5120,
                'VEC3',
                $count,
                ['normalized' => true],
            );
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
     *
     * @return array{min: list<int>, max: list<int>}
     */
    private static function range(Box $box, array $centre, float $reach): array
    {
        $scale = 32767 / $reach;
        $at = static fn (float $place, int $axis): int => (int) round(($place - $centre[$axis]) * $scale);

        return [
            'min' => [$at($box->minX, 0), $at($box->minY, 1), $at($box->minZ, 2)],
            'max' => [$at($box->maxX, 0), $at($box->maxY, 1), $at($box->maxZ, 2)],
        ];
    }
}
