<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** The column "meshweights": what each mesh weighs beside its triangles, 12 bytes by mesh number: vertices, pieces, bytes, uint32. */
final readonly class MeshWeights
{
    private const ENTRY = 12;

    /** @param array<int, array{vertices: int, pieces: int, bytes: int}> $meshes by number */
    public static function pack(array $meshes): string
    {
        $packed = '';
        ksort($meshes);
        foreach ($meshes as $number => $mesh) {
            $packed = str_pad($packed, $number * self::ENTRY, "\0");
            $packed .= pack('V3', $mesh['vertices'], $mesh['pieces'], $mesh['bytes']);
        }

        return $packed;
    }

    /** @return array{int, int} pieces and bytes of one mesh, zeros for none */
    public static function of(Scene $scene, int $mesh): array
    {
        $packed = $scene->column('meshweights');
        if (($mesh + 1) * self::ENTRY > strlen($packed)) {
            return [0, 0];
        }
        [$pieces, $bytes] = Packed::uint32($packed, $mesh * self::ENTRY + 4, 2);

        return [$pieces, $bytes];
    }

    /** @return array{list<int>, list<int>, list<int>, list<int>} triangles, vertices, pieces, bytes by mesh number */
    public static function all(Scene $scene): array
    {
        $packed = $scene->column('meshweights');
        $rows = $scene->column('meshrows');
        $triangles = $vertices = $pieces = $bytes = [];
        for ($number = 0, $count = intdiv(strlen($packed), self::ENTRY); $number < $count; $number++) {
            [$vertices[], $pieces[], $bytes[]] = Packed::uint32($packed, $number * self::ENTRY, 3);
            $triangles[] = Packed::uint32At($rows, $number * (DrawRecords::MESH >> 2) + 2);
        }

        return [$triangles, $vertices, $pieces, $bytes];
    }
}
