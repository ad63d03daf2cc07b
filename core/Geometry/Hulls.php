<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** The points of many meshes that can lie outermost, packed: mesh number, bytes, then 32-bit floats, three per point. */
final readonly class Hulls
{
    /**
     * @param array<int, int> $starts byte offset of its entry by mesh number
     */
    private function __construct(private string $packed, private array $starts) {}

    public static function unpack(string $packed): self
    {
        $starts = [];
        for ($at = 0, $end = strlen($packed); $at + 8 <= $end; $at += 8 + $head['bytes']) {
            /** @var array{mesh: int, bytes: int} $head */
            $head = unpack('Vmesh/Vbytes', $packed, $at);
            $starts[$head['mesh']] = $at;
        }

        return new self($packed, $starts);
    }

    /** One mesh's entry. @param string $points as {@see Hull::of()} gives them */
    public static function entry(int $mesh, string $points): string
    {
        return pack('VV', $mesh, strlen($points)).$points;
    }

    /** The entry of a mesh of which only the box is known. */
    public static function entryOfBox(int $mesh, Box $box): string
    {
        $points = '';
        foreach ($box->isEmpty() ? [] : [0, 1, 2, 3, 4, 5, 6, 7] as $corner) {
            $points .= pack(
                'g3',
                $corner & 1 ? $box->maxX : $box->minX,
                $corner & 2 ? $box->maxY : $box->minY,
                $corner & 4 ? $box->maxZ : $box->minZ,
            );
        }

        return self::entry($mesh, $points);
    }

    public function has(int $mesh): bool
    {
        return isset($this->starts[$mesh]);
    }

    /** @return list<float> in the mesh's own axes, metres, three per point */
    public function points(int $mesh): array
    {
        if (! isset($this->starts[$mesh])) {
            return [];
        }
        $at = $this->starts[$mesh];
        /** @var array{bytes: int} $head */
        $head = unpack('Vbytes', $this->packed, $at + 4);

        /** @var list<float> */
        return array_values((array) unpack('g'.intdiv($head['bytes'], 4), $this->packed, $at + 8));
    }
}
