<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** A mesh as it stands in a pack: quantized places and what they are put together to. */
final readonly class Shape
{
    /** Shapes stretch this far from the centre: a place of 32767 is $reach away. */
    public const STEPS = 32767;

    /**
     * @param array{float, float, float}                                                     $centre metres, in the mesh's own axes
     * @param list<array{kind: PrimitiveKind, positions: string, indices: string, wide: bool}> $pieces positions: four signed 16-bit numbers
     *     per
     *                                                                                                vertex, the last one 0; indices of 32
     * bits if wide, else 16
     */
    public function __construct(public array $centre, public float $reach, public array $pieces) {}

    /** The bounding box as a mesh of twelve triangles. */
    public static function ofBox(Box $box): self
    {
        $centre = [($box->minX + $box->maxX) / 2, ($box->minY + $box->maxY) / 2, ($box->minZ + $box->maxZ) / 2];
        $half = [$box->maxX - $centre[0], $box->maxY - $centre[1], $box->maxZ - $centre[2]];
        $reach = max(...$half) ?: 1e-6;
        $places = [];
        for ($corner = 0; $corner < 8; $corner++) {
            foreach ([0, 1, 2] as $axis) {
                $places[] = (int) round((self::STEPS * $half[$axis]) / $reach) * ((($corner >> $axis) & 1) === 1 ? 1 : -1);
            }
            $places[] = 0;
        }
        $faces = [0, 1, 3, 0, 3, 2, 4, 7, 5, 4, 6, 7, 0, 5, 1, 0, 4, 5, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4, 1, 7, 3, 1, 5, 7];

        return new self($centre, $reach, [
            [
                'kind' => PrimitiveKind::Triangles,
                'positions' => pack('s*', ...$places),
                'indices' => pack('v*', ...$faces),
                'wide' => false,
            ],
        ]);
    }
}
