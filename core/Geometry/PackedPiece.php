<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** One piece of a mesh as it stands in a pack, its vertices quantized. All strings are packed little-endian. */
final readonly class PackedPiece
{
    public function __construct(
        public PrimitiveKind $kind,
        /** Four signed 16-bit numbers per vertex, the last one 0. */
        public string $positions,
        /** 32-bit numbers if wide, else 16-bit ones. */
        public string $indices,
        public bool $wide,
        /** Four signed bytes per vertex, or where the scales of the axes differ four signed 16-bit numbers; null for flat shading. */
        public ?string $normals = null,
        /** Two floats per vertex. */
        public ?string $uvs = null,
        /** Red, green, blue, alpha per vertex. */
        public ?string $colours = null,
        /** The project's number of it, 0 for none. */
        public int $material = 0,
    ) {}

    public function vertices(): int
    {
        return intdiv(strlen($this->positions), 8);
    }

    public function triangles(): int
    {
        return $this->kind === PrimitiveKind::Triangles ? intdiv(strlen($this->indices), $this->wide ? 12 : 6) : 0;
    }

    /** Bytes of one normal, 0 where there are none. */
    public function normalBytes(): int
    {
        return $this->normals === null || $this->positions === '' ? 0 : intdiv(strlen($this->normals), $this->vertices());
    }

    /**
     * Triangles over some of its vertices.
     *
     * @param list<int> $vertices each once
     * @param list<int> $order    three for each triangle, by where they stand in $vertices
     */
    public function of(array $vertices, array $order): self
    {
        $cut = static function (?string $bytes, int $each) use ($vertices): ?string {
            if ($bytes === null) {
                return null;
            }
            $some = '';
            foreach ($vertices as $vertex) {
                $some .= substr($bytes, $vertex * $each, $each);
            }

            return $some;
        };
        $wide = count($vertices) > 65_535;

        return new self(
            $this->kind,
            (string) $cut($this->positions, 8),
            pack($wide ? 'V*' : 'v*', ...$order),
            $wide,
            $cut($this->normals, $this->normalBytes()),
            $cut($this->uvs, 8),
            $cut($this->colours, 4),
            $this->material,
        );
    }
}
