<?php

declare(strict_types=1);

namespace VineShelf\Export;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\GlbWriter;
use VineShelf\Geometry\PackedPiece;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;

/**
 * Writes meshes, each once for the ways in which it is drawn. Quantized, its places are as they are kept, counted from its middle: whatever
 * shows it has to undo that ({@see undo()}). Otherwise they are metres.
 *
 * @phpstan-import-type Transform from Affine
 */
final class MeshWriter
{
    /** @var array<string, int|null> */
    private array $meshes = [];

    /** @var array<string, array{array<string, int>, int}> attributes and indices of pieces that stand in the file */
    private array $pieces = [];

    public function __construct(
        private readonly GlbWriter $file,
        private readonly MaterialWriter $materials,
        private readonly bool $isQuantized,
        private readonly bool $isCompressed,
    ) {
        if ($isQuantized) {
            $file->uses('KHR_mesh_quantization', required: true);
        }
        if ($isCompressed) {
            $file->uses('EXT_meshopt_compression', required: true);
        }
    }

    /**
     * @param string          $key    of the shape
     * @param bool            $isFlat whether it goes without pictures
     * @param list<Transform> $baked  transforms that its places are to go through, once for each; none where they stay
     *
     * @return int|null its index, null where there is nothing in it
     */
    public function index(string $key, PackedShape $shape, bool $isFlat, array $baked = []): ?int
    {
        $kept = $key.($isFlat ? ' flat' : '').' '.hash('xxh128', (string) json_encode($baked));
        if (! array_key_exists($kept, $this->meshes)) {
            $primitives = [];
            foreach ($baked === [] ? [null] : $baked as $through) {
                foreach ($shape->pieces as $at => $piece) {
                    if ($piece->vertices() > 0 && $piece->indices !== '') {
                        $primitives[] = $this->primitive("$key $at", $shape, $piece, $isFlat, $through);
                    }
                }
            }
            $this->meshes[$kept] = $primitives === [] ? null : $this->file->add('meshes', ['primitives' => $primitives]);
        }

        return $this->meshes[$kept];
    }

    /**
     * What has to be done to the places of a mesh to have metres: first a scale, then a move.
     *
     * @return array{array{float, float, float}, array{float, float, float}} scale and move
     */
    public function undo(PackedShape $shape): array
    {
        return $this->isQuantized ? [$shape->scale, $shape->centre] : [[1.0, 1.0, 1.0], [0.0, 0.0, 0.0]];
    }

    /**
     * @param Transform|null $baked
     *
     * @return array<string, mixed>
     */
    private function primitive(string $key, PackedShape $shape, PackedPiece $piece, bool $isFlat, ?array $baked): array
    {
        [$attributes, $indices] =
            $baked === null ? ($this->pieces[$key] ??= $this->write($shape, $piece, null)) : $this->write($shape, $piece, $baked);
        $material = $this->materials->index($piece->material, $isFlat);

        return ['attributes' => $attributes, 'indices' => $indices, 'mode' => $piece->kind->value] +
            ($material === null ? [] : ['material' => $material]);
    }

    /**
     * @param Transform|null $baked
     *
     * @return array{array<string, int>, int}
     */
    private function write(PackedShape $shape, PackedPiece $piece, ?array $baked): array
    {
        $count = $piece->vertices();
        $isShort = $this->isQuantized && $baked === null;
        $attributes = [];
        if ($isShort) {
            [$least, $most] = self::reach(array_values((array) unpack('s*', $piece->positions)), 4);
            $attributes['POSITION'] = $this->accessor($piece->positions, 8, 5122, 'VEC3', $count, [
                'normalized' => true,
                'min' => $least,
                'max' => $most,
            ]);
        } else {
            $places = Metres::places($shape, $piece, $baked);
            // As floats have them: what is written must not stand out of what is said.
            $floats = pack('g*', ...$places);
            [$least, $most] = self::reach(array_values((array) unpack('g*', $floats)), 3);
            $attributes['POSITION'] = $this->accessor($floats, 12, 5126, 'VEC3', $count, ['min' => $least, 'max' => $most]);
        }
        if ($piece->normals !== null && $isShort) {
            $each = $piece->normalBytes();
            $attributes['NORMAL'] = $this->accessor($piece->normals, $each, $each === 4 ? 5120 : 5122, 'VEC3', $count, [
                'normalized' => true,
            ]);
        } elseif ($piece->normals !== null) {
            $attributes['NORMAL'] = $this->accessor(pack('g*', ...Metres::normals($shape, $piece, $baked)), 12, 5126, 'VEC3', $count);
        }
        if ($piece->uvs !== null) {
            $attributes['TEXCOORD_0'] = $this->accessor($piece->uvs, 8, 5126, 'VEC2', $count);
        }
        if ($piece->colours !== null) {
            $attributes['COLOR_0'] = $this->accessor($piece->colours, 4, 5121, 'VEC4', $count, ['normalized' => true]);
        }

        return [$attributes, $this->indices($piece, $baked !== null && Metres::mirrors($baked))];
    }

    /** @param bool $isTurned whether triangles go the other way round */
    private function indices(PackedPiece $piece, bool $isTurned): int
    {
        $size = $piece->wide ? 4 : 2;
        $count = intdiv(strlen($piece->indices), $size);
        $bytes = $piece->indices;
        /** @var list<int> $indices */
        $indices = $isTurned || $this->isCompressed ? array_values((array) unpack($piece->wide ? 'V*' : 'v*', $bytes)) : [];
        if ($isTurned && $piece->kind === PrimitiveKind::Triangles) {
            for ($at = 0; $at + 2 < $count; $at += 3) {
                [$indices[$at + 1], $indices[$at + 2]] = [$indices[$at + 2], $indices[$at + 1]];
            }
            $bytes = pack($piece->wide ? 'V*' : 'v*', ...$indices);
        }
        $view = $this->isCompressed
            ? $this->file->compressed(MeshoptPacker::indices(array_values($indices)), $count, $size, 'INDICES', 34963)
            : $this->file->view($bytes, 34963);

        return $this->file->accessor($view, $piece->wide ? 5125 : 5123, 'SCALAR', $count);
    }

    /** @param array<string, mixed> $more */
    private function accessor(string $bytes, int $stride, int $componentType, string $type, int $count, array $more = []): int
    {
        $view = $this->isCompressed
            ? $this->file->compressed(MeshoptPacker::attributes($bytes, $stride), $count, $stride, 'ATTRIBUTES', 34962)
            : $this->file->view($bytes, 34962, $stride);

        return $this->file->accessor($view, $componentType, $type, $count, $more);
    }

    /**
     * @param list<mixed> $numbers
     *
     * @return array{list<int|float>, list<int|float>} least and greatest of each of the first three of every $each
     */
    private static function reach(array $numbers, int $each): array
    {
        /** @var list<int|float> $numbers */
        $least = $most = array_slice($numbers, 0, 3);
        for ($at = 0, $count = count($numbers); $at < $count; $at += $each) {
            for ($axis = 0; $axis < 3; $axis++) {
                $least[$axis] = min($least[$axis], $numbers[$at + $axis]);
                $most[$axis] = max($most[$axis], $numbers[$at + $axis]);
            }
        }

        return [array_values($least), array_values($most)];
    }

    /** A box, as the rung of that name draws it. */
    public static function box(PackedShape $shape): PackedShape
    {
        [$least, $most] = [[INF, INF, INF], [-INF, -INF, -INF]];
        foreach ($shape->pieces as $piece) {
            if ($piece->vertices() > 0) {
                [$low, $high] = self::reach(array_values((array) unpack('s*', $piece->positions)), 4);
                foreach ([0, 1, 2] as $axis) {
                    [$least[$axis], $most[$axis]] = [min($least[$axis], $low[$axis]), max($most[$axis], $high[$axis])];
                }
            }
        }
        $half = $centre = [0.0, 0.0, 0.0];
        foreach ([0, 1, 2] as $axis) {
            $step = $shape->scale[$axis] / Shape::STEPS;
            $half[$axis] = max(1e-6, (($most[$axis] - $least[$axis]) * $step) / 2);
            $centre[$axis] = $shape->centre[$axis] + (($most[$axis] + $least[$axis]) * $step) / 2;
        }
        $box = Shape::ofBox($half)->pieces[0];
        $material = $shape->pieces[0]->material ?? 0;

        return new PackedShape($centre, $half, [
            new PackedPiece(PrimitiveKind::Triangles, $box['positions'], $box['indices'], $box['wide'], material: $material),
        ]);
    }
}
