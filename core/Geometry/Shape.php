<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** A mesh as it stands in a pack: quantized places, counted from the middle of its box, and what they are put together to. */
final readonly class Shape
{
    /** A place of so many steps lies one scale away from the middle. */
    public const STEPS = 32767;

    /**
     * @param array{float, float, float}                                                     $scale  metres, along each of the mesh's own
     *     axes
     * @param list<array{kind: PrimitiveKind, positions: string, indices: string, wide: bool}> $pieces positions: four signed 16-bit numbers
     *     per vertex, the last one 0; indices of 32 bits if wide, else 16
     */
    public function __construct(public array $scale, public array $pieces) {}

    /**
     * The bounding box, whose middle is zero, as a mesh of twelve triangles.
     *
     * @param array{float, float, float} $half half of its sides
     */
    public static function ofBox(array $half): self
    {
        $places = [];
        for ($corner = 0; $corner < 8; $corner++) {
            foreach ([0, 1, 2] as $axis) {
                $places[] = self::STEPS * ((($corner >> $axis) & 1) === 1 ? 1 : -1);
            }
            $places[] = 0;
        }
        $faces = [0, 1, 3, 0, 3, 2, 4, 7, 5, 4, 6, 7, 0, 5, 1, 0, 4, 5, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4, 1, 7, 3, 1, 5, 7];

        return new self($half, [
            [
                'kind' => PrimitiveKind::Triangles,
                'positions' => pack('s*', ...$places),
                'indices' => pack('v*', ...$faces),
                'wide' => false,
            ],
        ]);
    }
}
