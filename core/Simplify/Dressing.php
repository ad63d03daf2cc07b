<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

use VineShelf\Geometry\PackedPiece;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\PrimitiveKind;

/**
 * Gives a coarser version the normals, texture coordinates and colours of the mesh: each corner becomes one of the vertices that the mesh
 * has at its place. Of several, as along a sharp edge or where a texture is cut, it is the one whose normal goes best with the triangle,
 * and whose place on the texture is nearest to where the corner was.
 */
final class Dressing
{
    /** What a step across the whole texture weighs, compared with a right angle. */
    private const ACROSS = 4.0;

    private function __construct(
        private readonly PackedShape $mesh,
        private readonly Surface $surface,
        private readonly Simplified $version,
    ) {}

    public static function of(PackedShape $mesh, Surface $surface, Simplified $version): PackedShape
    {
        $dressing = new self($mesh, $surface, $version);
        $triangles = array_fill(0, count($mesh->pieces), []);
        foreach ($version->kept as $at => $triangle) {
            $triangles[$surface->pieces[$triangle]][] = $at;
        }
        $pieces = [];
        foreach ($mesh->pieces as $number => $piece) {
            if ($piece->kind !== PrimitiveKind::Triangles) {
                $pieces[] = $piece;
            } elseif ($triangles[$number] !== []) {
                $pieces[] = $dressing->piece($number, $triangles[$number]);
            }
        }

        return new PackedShape($mesh->centre, $mesh->scale, $pieces);
    }

    /** @param list<int> $triangles of the version */
    private function piece(int $number, array $triangles): PackedPiece
    {
        $piece = $this->mesh->pieces[$number];
        $at = $this->candidates($number, $triangles);
        $normals = $piece->normals === null ? null : $this->normals($piece->normals, $piece->normalBytes());
        /** @var array<int, float>|null $uvs from 1 on */
        $uvs = $piece->uvs === null ? null : unpack('g*', $piece->uvs);
        $across = $uvs === null ? 0.0 : self::across($uvs);
        $vertices = $order = [];
        foreach ($triangles as $triangle) {
            $there = [];
            for ($corner = 3 * $triangle, $end = $corner + 3; $corner < $end; $corner++) {
                $there[] = $at[$this->version->corners[$corner]];
            }
            foreach ($this->chosen($triangle, $there, $normals, $across > 0 ? $uvs : null, $across) as $vertex) {
                $order[] = $vertices[$vertex] ??= count($vertices);
            }
        }

        return $piece->of(array_keys($vertices), $order);
    }

    /**
     * @param list<non-empty-list<int>> $there   vertices that each corner of the triangle may be
     * @param list<float>|null          $normals
     * @param array<int, float>|null    $uvs     from 1 on
     *
     * @return list<int> the vertex of each corner
     */
    private function chosen(int $triangle, array $there, ?array $normals, ?array $uvs, float $across): array
    {
        if (count($there[0]) + count($there[1]) + count($there[2]) === 3) {
            return [$there[0][0], $there[1][0], $there[2][0]];
        }
        [$fx, $fy, $fz] = $this->facing($triangle);
        $sure = array_filter($there, static fn (array $vertices): bool => count($vertices) === 1);
        $chosen = [];
        foreach ($there as $corner => $vertices) {
            // Near the corners that leave no choice; where all do, near to where this one was.
            $near = $sure === [] ? [$this->surface->vertices[3 * $this->version->kept[$triangle] + $corner]] : array_merge(...$sure);
            $least = INF;
            $best = $vertices[0];
            foreach (count($vertices) === 1 ? [] : $vertices as $vertex) {
                $cost = 0.0;
                if ($normals !== null) {
                    $cost -= $normals[3 * $vertex] * $fx + $normals[3 * $vertex + 1] * $fy + $normals[3 * $vertex + 2] * $fz;
                }
                foreach ($near as $other) {
                    $cost += $uvs === null ? 0.0 : (self::ACROSS * self::apart($uvs, $vertex, $other)) / $across;
                }
                if ($cost < $least) {
                    [$least, $best] = [$cost, $vertex];
                }
            }
            $chosen[] = $best;
        }

        return $chosen;
    }

    /**
     * @param list<int> $triangles of the version
     *
     * @return array<int, non-empty-list<int>> for each of its places the vertices that the piece has there
     */
    private function candidates(int $number, array $triangles): array
    {
        $wanted = [];
        foreach ($triangles as $triangle) {
            for ($at = 3 * $triangle, $end = $at + 3; $at < $end; $at++) {
                $wanted[$this->version->corners[$at]] = [];
            }
        }
        foreach ($this->surface->pieces as $triangle => $piece) {
            if ($piece !== $number) {
                continue;
            }
            for ($at = 3 * $triangle, $end = $at + 3; $at < $end; $at++) {
                $place = $this->surface->corners[$at];
                if (isset($wanted[$place])) {
                    $wanted[$place][$this->surface->vertices[$at]] = true;
                }
            }
        }
        $candidates = [];
        foreach ($wanted as $place => $vertices) {
            $candidates[$place] = $vertices === [] ? [0] : array_keys($vertices);
        }

        return $candidates;
    }

    /** @return list<float> three numbers per vertex, of unit length all but */
    private function normals(string $packed, int $each): array
    {
        /** @var array<int, int> $numbers from 1 on */
        $numbers = unpack($each === 4 ? 'c*' : 's*', $packed);
        $scale = $each === 4 ? [127.0, 127.0, 127.0] : $this->mesh->scale;
        $normals = [];
        for ($at = 1, $count = count($numbers); $at < $count; $at += 4) {
            [$x, $y, $z] = [$numbers[$at] / $scale[0], $numbers[$at + 1] / $scale[1], $numbers[$at + 2] / $scale[2]];
            $by = $each === 4 ? 1.0 : 1 / (sqrt($x * $x + $y * $y + $z * $z) ?: 1.0);
            array_push($normals, $x * $by, $y * $by, $z * $by);
        }

        return $normals;
    }

    /** @return array{float, float, float} the normal of a triangle of the version, of unit length */
    private function facing(int $triangle): array
    {
        $p = [];
        for ($corner = 0; $corner < 3; $corner++) {
            $place = $this->version->corners[3 * $triangle + $corner];
            $p[] = [$this->surface->x[$place], $this->surface->y[$place], $this->surface->z[$place]];
        }
        [$bx, $by, $bz] = [$p[1][0] - $p[0][0], $p[1][1] - $p[0][1], $p[1][2] - $p[0][2]];
        [$cx, $cy, $cz] = [$p[2][0] - $p[0][0], $p[2][1] - $p[0][1], $p[2][2] - $p[0][2]];
        [$x, $y, $z] = [$by * $cz - $bz * $cy, $bz * $cx - $bx * $cz, $bx * $cy - $by * $cx];
        $length = sqrt($x * $x + $y * $y + $z * $z) ?: 1.0;

        return [$x / $length, $y / $length, $z / $length];
    }

    /**
     * The square of how far two vertices are apart on the texture.
     *
     * @param array<int, float> $uvs from 1 on
     */
    private static function apart(array $uvs, int $a, int $b): float
    {
        return ($uvs[2 * $a + 1] - $uvs[2 * $b + 1]) ** 2 + ($uvs[2 * $a + 2] - $uvs[2 * $b + 2]) ** 2;
    }

    /**
     * The square of how far the texture reaches.
     *
     * @param array<int, float> $uvs from 1 on
     */
    private static function across(array $uvs): float
    {
        [$u0, $v0, $u1, $v1] = [INF, INF, -INF, -INF];
        for ($at = 1, $count = count($uvs); $at < $count; $at += 2) {
            [$u0, $u1] = [min($u0, $uvs[$at]), max($u1, $uvs[$at])];
            [$v0, $v1] = [min($v0, $uvs[$at + 1]), max($v1, $uvs[$at + 1])];
        }

        return is_finite($u1 - $u0 + $v1 - $v0) ? ($u1 - $u0) ** 2 + ($v1 - $v0) ** 2 : 0.0;
    }
}
