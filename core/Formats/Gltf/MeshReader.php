<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Limits;
use VineShelf\Formats\TakenMesh;
use VineShelf\Formats\UnreadableFile;
use VineShelf\Geometry\Primitive;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Packed;

/** Counts meshes from the JSON alone, and reads their vertices when asked. */
final class MeshReader
{
    /** Numbers that are taken apart at a time. */
    private const WINDOW = 32_768;

    /** @var array<int, TakenMesh> */
    private array $facts = [];

    private bool $isSorted = true;

    /**
     * @param list<MeshEntry>                                                                                        $meshes
     * @param list<array{offset: array{float, float}, turn: float, scale: array{float, float}, set: int}|null> $transforms texture transform
     *     by material
     */
    public function __construct(
        private readonly Buffers $buffers,
        private readonly array $meshes,
        private readonly array $transforms,
        private readonly int $materials,
        private readonly Limits $limits,
    ) {}

    /** @return array<int, TakenMesh> the meshes asked for so far */
    public function used(): array
    {
        if (! $this->isSorted) {
            ksort($this->facts);
            $this->isSorted = true;
        }

        return $this->facts;
    }

    /** @return list<string> what is left out of meshes, as often as it is */
    public function leftOut(): array
    {
        $found = [];
        foreach ($this->facts as $index => $_) {
            array_push($found, ...array_fill(0, $this->meshes[$index]->withoutPlaces, 'mesh piece'));
            foreach ($this->meshes[$index]->pieces as $piece) {
                if ($piece['morphs'] > 0) {
                    $found[] = 'morph target set';
                }
            }
        }

        return $found;
    }

    public function facts(int $index): TakenMesh
    {
        if (isset($this->facts[$index])) {
            return $this->facts[$index];
        }
        $this->isSorted = false;
        $mesh = $this->meshes[$index] ?? throw UnreadableFile::badReference('A node', 'mesh', $index);
        $triangles = $vertices = 0;
        $kinds = [];
        foreach ($mesh->pieces as $piece) {
            $position = $this->buffers->accessor($piece['position'], "Mesh $index");
            $drawn = $piece['indices'] === null ? $position->count : $this->buffers->accessor($piece['indices'], "Mesh $index")->count;
            $vertices += $position->count;
            $triangles += match ($piece['mode']) {
                4 => intdiv($drawn, 3),
                5, 6 => max(0, $drawn - 2),
                default => 0,
            };
            $kinds[$piece['mode'] >= 4 ? 'part' : ($piece['mode'] === 0 ? 'points' : 'curve')] = true;
            if ($piece['material'] !== null && $piece['material'] >= $this->materials) {
                throw UnreadableFile::badReference("Mesh $index", 'material', $piece['material']);
            }
        }
        if ($vertices > $this->limits->meshVertices) {
            throw UnreadableFile::tooMuch("too many vertices in mesh $index", $vertices, $this->limits->meshVertices);
        }
        $kind = isset($kinds['part']) || $kinds === [] ? Kind::Part : (isset($kinds['curve']) ? Kind::Curve : Kind::Points);

        return $this->facts[$index] = new TakenMesh(
            $mesh->name,
            $kind,
            $triangles,
            $vertices,
            count($mesh->pieces),
            $mesh->pieces[0]['material'] ?? null,
            array_values(array_unique(array_filter(array_column($mesh->pieces, 'material'), is_int(...)))),
        );
    }

    /** @return list<Primitive> */
    public function primitives(int $index): array
    {
        $primitives = [];
        foreach ($this->meshes[$index]->pieces as $piece) {
            $position = $this->buffers->accessor($piece['position'], "Mesh $index");
            if ($position->components !== 3) {
                throw UnreadableFile::because("The positions of mesh $index do not have three components.");
            }
            $positions = $this->sound($this->buffers->floats($position), $index);
            if ($positions === '') {
                continue;
            }
            $indices = $this->indices($piece, $position->count, $index);
            [$kind, $indices] = self::listed($piece['mode'], $indices);
            if ($indices === '') {
                continue;
            }
            $primitives[] = new Primitive(
                $kind,
                $positions,
                $indices,
                $kind === PrimitiveKind::Triangles ? $this->attribute($piece['normal'], 3, $position->count, $index) : null,
                $this->uvs($piece, $position->count, $index),
                $this->colours($piece['colour'], $position->count, $index),
                $piece['material'],
            );
        }

        return $primitives;
    }

    /** Not-a-number and infinite positions would spoil every bound; they fail the file. */
    private function sound(string $positions, int $mesh): string
    {
        foreach (str_split($positions, 98_304) as $window) {
            /** @var array<int, float> $numbers */
            $numbers = $window === '' ? [] : unpack('g*', $window);
            if (! is_finite(array_sum($numbers))) {
                throw UnreadableFile::because("Mesh $mesh has a vertex whose position is not a finite number.");
            }
        }

        return $positions;
    }

    /**
     * @param array{mode: int, indices: int|null, material: int|null, position: int, normal: int|null, uvs: array<int, int>,
     *     colour: int|null, morphs: int} $piece
     */
    private function indices(array $piece, int $vertices, int $mesh): string
    {
        if ($piece['indices'] === null) {
            return self::counted($vertices);
        }
        $indices = $this->buffers->indices($this->buffers->accessor($piece['indices'], "Mesh $mesh"));
        foreach ($indices === '' ? [] : str_split($indices, 131_072) as $window) {
            /** @var non-empty-array<int, int> $numbers */
            $numbers = unpack('V*', $window);
            if (max($numbers) >= $vertices) {
                throw UnreadableFile::because("Mesh $mesh draws vertex ".max($numbers)." and has only $vertices.");
            }
        }

        return $indices;
    }

    /** The numbers from 0 on, packed, a window at a time: all at once they would take many times their place. */
    private static function counted(int $numbers): string
    {
        $packed = '';
        for ($first = 0; $first < $numbers; $first += self::WINDOW) {
            $packed .= pack('V*', ...range($first, min($numbers, $first + self::WINDOW) - 1));
        }

        return $packed;
    }

    /**
     * Strips, fans and loops as plain lists.
     *
     * @return array{PrimitiveKind, string}
     */
    private static function listed(int $mode, string $packed): array
    {
        return match ($mode) {
            0 => [PrimitiveKind::Points, $packed],
            1 => [PrimitiveKind::Lines, substr($packed, 0, intdiv(strlen($packed), 8) * 8)],
            2, 3 => [PrimitiveKind::Lines, self::chained($packed, $mode === 2)],
            4 => [PrimitiveKind::Triangles, substr($packed, 0, intdiv(strlen($packed), 12) * 12)],
            default => [PrimitiveKind::Triangles, self::stripped($packed, $mode === 6)],
        };
    }

    /** The lines of a strip, and of a loop that one back to its start. */
    private static function chained(string $packed, bool $isLoop): string
    {
        $lines = '';
        foreach (self::windows($packed, 1) as [, $indices]) {
            $some = [];
            for ($at = 1, $count = count($indices); $at < $count; $at++) {
                array_push($some, $indices[$at - 1], $indices[$at]);
            }
            $lines .= pack('V*', ...$some);
        }

        return $isLoop && strlen($packed) > 8 ? $lines.substr($packed, -4).substr($packed, 0, 4) : $lines;
    }

    /** The triangles of a strip, every other one turned around, or of a fan around its first corner. */
    private static function stripped(string $packed, bool $isFan): string
    {
        $first = $packed === '' ? 0 : Packed::uint32At($packed, 0);
        $triangles = '';
        foreach (self::windows($packed, 2) as [$start, $indices]) {
            $some = [];
            for ($at = 2, $count = count($indices); $at < $count; $at++) {
                $odd = ($start + $at) & 1;
                if ($isFan) {
                    array_push($some, $first, $indices[$at - 1], $indices[$at]);
                } else {
                    array_push($some, $indices[$at - 2], $indices[$at - 1 + $odd], $indices[$at - $odd]);
                }
            }
            $triangles .= $some === [] ? '' : pack('V*', ...$some);
        }

        return $triangles;
    }

    /**
     * Numbers a window at a time, each beginning with the last ones of the window before.
     *
     * @return iterable<array{int, list<int>}> how many came before, and the numbers
     */
    private static function windows(string $packed, int $shared): iterable
    {
        $count = intdiv(strlen($packed), 4);
        for ($start = 0; $start < $count; $start += self::WINDOW - $shared) {
            $numbers = Packed::uint32($packed, $start * 4, min(self::WINDOW, $count - $start));
            if ($start === 0 || count($numbers) > $shared) {
                yield [$start, $numbers];
            }
        }
    }

    private function attribute(?int $accessor, int $components, int $vertices, int $mesh): ?string
    {
        if ($accessor === null) {
            return null;
        }
        $found = $this->buffers->accessor($accessor, "Mesh $mesh");
        if ($found->components !== $components || $found->count !== $vertices) {
            throw UnreadableFile::because("Mesh $mesh has $vertices vertices and an attribute that does not fit them.");
        }

        return $this->buffers->floats($found);
    }

    /**
     * @param array{mode: int, indices: int|null, material: int|null, position: int, normal: int|null, uvs: array<int, int>,
     *     colour: int|null, morphs: int} $piece
     */
    private function uvs(array $piece, int $vertices, int $mesh): ?string
    {
        $transform = $this->transforms[$piece['material'] ?? -1] ?? null;
        if ($transform === null) {
            return null;
        }
        $uvs = $this->attribute($piece['uvs'][$transform['set']] ?? null, 2, $vertices, $mesh);
        if ($uvs === null || ($transform['turn'] === 0.0 && $transform['scale'] === [1.0, 1.0] && $transform['offset'] === [0.0, 0.0])) {
            return $uvs;
        }
        $cos = cos($transform['turn']);
        $sin = sin($transform['turn']);
        $turned = '';
        foreach (str_split($uvs, 65_536) as $window) {
            /** @var array<int, float> $n */
            $n = unpack('g*', $window);
            for ($at = 1, $end = count($n); $at < $end; $at += 2) {
                $u = $n[$at] * $transform['scale'][0];
                $v = $n[$at + 1] * $transform['scale'][1];
                $n[$at] = $cos * $u + $sin * $v + $transform['offset'][0];
                $n[$at + 1] = -$sin * $u + $cos * $v + $transform['offset'][1];
            }
            $turned .= pack('g*', ...$n);
        }

        return $turned;
    }

    private function colours(?int $accessor, int $vertices, int $mesh): ?string
    {
        if ($accessor === null) {
            return null;
        }
        $found = $this->buffers->accessor($accessor, "Mesh $mesh");
        if ($found->count !== $vertices || ($found->components !== 3 && $found->components !== 4)) {
            throw UnreadableFile::because("Mesh $mesh has $vertices vertices and colours that do not fit them.");
        }
        $bytes = '';
        foreach (str_split($this->buffers->floats($found), $found->components * 4 * 4096) as $window) {
            /** @var array<int, float> $floats */
            $floats = $window === '' ? [] : unpack('g*', $window);
            $some = [];
            foreach (array_values($floats) as $at => $value) {
                $some[] = (int) round(255 * min(1.0, max(0.0, $value)));
                if ($found->components === 3 && $at % 3 === 2) {
                    $some[] = 255;
                }
            }
            $bytes .= pack('C*', ...$some);
        }

        return $bytes;
    }
}
