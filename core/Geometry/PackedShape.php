<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** A mesh as it stands in a pack, with everything that it is drawn with. */
final readonly class PackedShape
{
    /**
     * @param array{float, float, float} $centre that its places are counted from, metres
     * @param array{float, float, float} $scale  metres that {@see Shape::STEPS} stand for along each axis
     * @param list<PackedPiece>          $pieces
     */
    public function __construct(public array $centre, public array $scale, public array $pieces) {}

    public function shape(): Shape
    {
        return new Shape(
            $this->scale,
            array_map(
                static fn (PackedPiece $piece): array => [
                    'kind' => $piece->kind,
                    'positions' => $piece->positions,
                    'indices' => $piece->indices,
                    'wide' => $piece->wide,
                ],
                $this->pieces,
            ),
        );
    }

    public function triangles(): int
    {
        return array_sum(array_map(static fn (PackedPiece $piece): int => $piece->triangles(), $this->pieces));
    }

    public function vertices(): int
    {
        return array_sum(array_map(static fn (PackedPiece $piece): int => $piece->vertices(), $this->pieces));
    }

    /** How far its corners can be from its middle at most, metres. */
    public function reach(): float
    {
        return sqrt($this->scale[0] ** 2 + $this->scale[1] ** 2 + $this->scale[2] ** 2);
    }
}
