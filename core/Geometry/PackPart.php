<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** A pack with some of its meshes only: for whoever must not get the others. */
final class PackPart
{
    /**
     * @param string            $pack   as {@see PackWriter} wrote it
     * @param array<int, mixed> $meshes numbers of those that stay, as keys; their coarser versions stay with them
     *
     * @return array{string, array<int, true>}|null the pack, and the numbers of the materials in it; null where it is not whole any more,
     *     or has none of the meshes
     */
    public static function of(string $pack, array $meshes): ?array
    {
        $reader = PackReader::whole($pack);
        if ($reader === null) {
            return null;
        }
        $writer = new PackWriter;
        $materials = [];
        foreach ($reader->holds() as [$mesh, $version]) {
            $shape = isset($meshes[$mesh]) ? $reader->packed($mesh, $version) : null;
            if ($shape === null) {
                continue;
            }
            $version === 0 ? $writer->addShape($mesh, $shape, new Box) : $writer->addVersion($mesh, $version, $shape);
            foreach ($shape->pieces as $piece) {
                $materials[$piece->material] = true;
            }
        }

        return $materials === [] ? null : [$writer->finish(), $materials];
    }
}
