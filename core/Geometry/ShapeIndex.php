<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * Where each mesh stands in its pack, so that one can be read without the others: its scale, then for each piece what it is and where its
 * places and indices lie in the binary part of the pack. A table of offsets by mesh number stands in front.
 */
final readonly class ShapeIndex
{
    private const PIECE = 18;

    public function __construct(private string $packed) {}

    /**
     * One mesh's entry, as {@see PackWriter} tells it.
     *
     * @param array{float, float, float}                                             $scale
     * @param list<array{kind: int, wide: bool, positions: array{int, int}, indices: array{int, int}}> $pieces start and length in bytes
     */
    public static function entry(int $mesh, array $scale, array $pieces): string
    {
        $packed = pack('e3', ...$scale);
        foreach ($pieces as $piece) {
            $packed .= pack('CCV4', $piece['kind'], (int) $piece['wide'], ...$piece['positions'], ...$piece['indices']);
        }

        return pack('VV', $mesh, strlen($packed)).$packed;
    }

    /** @param string $entries one behind the other, in any order */
    public static function of(string $entries): self
    {
        $found = [];
        for ($at = 0, $end = strlen($entries); $at + 8 <= $end; $at += 8 + $head['bytes']) {
            /** @var array{mesh: int, bytes: int} $head */
            $head = unpack('Vmesh/Vbytes', $entries, $at);
            $found[$head['mesh']] = [$at + 8, $head['bytes']];
        }
        $most = $found === [] ? -1 : max(array_keys($found));
        $offsets = [];
        $packed = '';
        $start = 4 * ($most + 2);
        for ($mesh = 0; $mesh <= $most; $mesh++) {
            $offsets[] = $start + strlen($packed);
            $packed .= isset($found[$mesh]) ? substr($entries, ...$found[$mesh]) : '';
        }
        $offsets[] = $start + strlen($packed);

        return new self(pack('V*', ...$offsets).$packed);
    }

    public function pack(): string
    {
        return $this->packed;
    }

    /**
     * @param callable(int, int): string $read bytes of the binary part of its pack, by start and length
     *
     * @return Shape|null null when nothing is known of the mesh
     */
    public function shape(int $mesh, callable $read): ?Shape
    {
        if ($mesh < 0 || $this->packed === '' || 4 * ($mesh + 2) > $this->first()) {
            return null;
        }
        /** @var array{1: int, 2: int} $range */
        $range = unpack('V2', $this->packed, 4 * $mesh);
        if ($range[1] === $range[2]) {
            return null;
        }
        /** @var array{1: float, 2: float, 3: float} $scale */
        $scale = unpack('e3', $this->packed, $range[1]);
        $pieces = [];
        for ($at = $range[1] + 24; $at < $range[2]; $at += self::PIECE) {
            /** @var array{kind: int, wide: int, p: int, pn: int, i: int, in: int} $piece */
            $piece = unpack('Ckind/Cwide/Vp/Vpn/Vi/Vin', $this->packed, $at);
            $pieces[] = [
                'kind' => PrimitiveKind::from($piece['kind']),
                'positions' => $read($piece['p'], $piece['pn']),
                'indices' => $read($piece['i'], $piece['in']),
                'wide' => $piece['wide'] === 1,
            ];
        }

        return new Shape([$scale[1], $scale[2], $scale[3]], $pieces);
    }

    /** Where the entries begin. */
    private function first(): int
    {
        /** @var array{1: int} $first */
        $first = unpack('V', $this->packed);

        return $first[1];
    }
}
