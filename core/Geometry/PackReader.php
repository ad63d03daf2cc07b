<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * Reads what {@see PackWriter} wrote. Packs are our own files, written once and never changed: what does not fit is a fault, not bad input.
 */
final class PackReader
{
    /** @return array<int, Shape> by mesh number */
    public static function shapes(string $bytes): array
    {
        /** @var array{json: int} $head */
        $head = unpack('Vjson', $bytes, 12);
        $json = json_decode(substr($bytes, 20, $head['json']), true, 64, JSON_THROW_ON_ERROR);
        if (! is_array($json)) {
            throw new \UnexpectedValueException('A pack is not laid out as it was written.');
        }
        $binary = 20 + $head['json'] + 8;
        /** @var list<array{byteOffset: int, byteLength: int}> $views */
        $views = $json['bufferViews'] ?? [];
        /** @var list<array{bufferView: int, componentType: int}> $accessors */
        $accessors = $json['accessors'] ?? [];
        $cut = static function (int $accessor) use ($bytes, $binary, $views, $accessors): string {
            $view = $views[$accessors[$accessor]['bufferView']];

            return substr($bytes, $binary + $view['byteOffset'], $view['byteLength']);
        };
        $shapes = [];
        /**
         * @var list<array{mesh: int, translation: array{float, float, float}, scale: array{float, float, float}, extras: array{mesh: int}}>
         * $nodes
         */
        $nodes = $json['nodes'] ?? [];
        /** @var list<array{primitives: list<array{attributes: array{POSITION: int}, indices: int, mode: int}>}> $meshes */
        $meshes = $json['meshes'] ?? [];
        foreach ($nodes as $node) {
            $pieces = [];
            foreach ($meshes[$node['mesh']]['primitives'] as $primitive) {
                $pieces[] = [
                    'kind' => PrimitiveKind::from($primitive['mode']),
                    'positions' => $cut($primitive['attributes']['POSITION']),
                    'indices' => $cut($primitive['indices']),
                    'wide' => $accessors[$primitive['indices']]['componentType'] === 5125,
                ];
            }
            [$x, $y, $z] = $node['scale'];
            $shapes[$node['extras']['mesh']] = new Shape([(float) $x, (float) $y, (float) $z], $pieces);
        }

        return $shapes;
    }
}
