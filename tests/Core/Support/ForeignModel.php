<?php

declare(strict_types=1);

namespace Tests\Core\Support;

/**
 * A random model as other people's exporters write them: deep or flat, turned, mirrored and unevenly scaled, with matrices or without,
 * strided, sparse, quantized and shared geometry, strips and fans, several pieces a mesh, names of all kinds. It knows by its own plain
 * arithmetic what is in it.
 */
final class ForeignModel
{
    /** @var array<string, mixed> */
    public array $gltf = ['asset' => ['version' => '2.0', 'generator' => 'somebody else'], 'scene' => 0];

    public string $bytes = '';

    /** @var array<int, list<array{float, float, float}>> places of all that a node draws, z up, by node */
    public array $places = [];

    /** @var array<int, int> by node */
    public array $parents = [];

    /** @var array<string, int> */
    public array $counts = ['objects' => 0, 'parts' => 0, 'triangles' => 0, 'vertices' => 0, 'lights' => 0, 'cameras' => 0];

    /** @var list<array{points: list<array{float, float, float}>, triangles: int, vertices: int}> */
    private array $meshes = [];

    public static function grow(int $nodes): self
    {
        $model = new self;
        foreach (range(1, mt_rand(1, 6)) as $_) {
            $model->addMesh();
        }
        $model->gltf['cameras'] = [['type' => 'perspective', 'perspective' => ['yfov' => 0.7, 'znear' => 0.1]]];
        $model->gltf['extensionsUsed'] = ['KHR_lights_punctual', 'KHR_mesh_quantization'];
        $model->gltf['extensions'] = ['KHR_lights_punctual' => ['lights' => [['type' => 'point', 'intensity' => 4.5]]]];
        $worlds = [];
        $roots = [];
        foreach (range(0, $nodes - 1) as $index) {
            $parent = $index === 0 || mt_rand(0, 9) === 0 ? -1 : mt_rand(max(0, $index - 30), $index - 1);
            [$node, $local] = self::placed();
            $worlds[$index] = self::times($parent < 0 ? self::yUp() : $worlds[$parent], $local);
            $node['name'] = ['Wall', 'Wall', '', 'Größe "7"', "a\tb", '<b>Tür</b>', 'x/y#z~', '🏊', '=?*'][mt_rand(0, 8)];
            $model->fill($node, $index, $worlds[$index]);
            if ($parent < 0) {
                $roots[] = $index;
            } else {
                $model->gltf['nodes'][$parent]['children'][] = $index;
            }
            $model->parents[$index] = $parent;
            $model->gltf['nodes'][$index] = $node + ($model->gltf['nodes'][$index] ?? []);
            $model->counts['objects']++;
        }
        $model->gltf['scenes'] = [['nodes' => $roots]];

        return $model;
    }

    /** @param string $how "glb", "gltf" or "zip" */
    public function write(string $how): string
    {
        $gltf = $this->gltf + ['buffers' => [['byteLength' => strlen($this->bytes)]]];
        if ($how === 'glb') {
            return Gltf::binary($gltf, $this->bytes);
        }
        $gltf['buffers'][0]['uri'] = $how === 'gltf' ? Gltf::embedded($this->bytes) : 'data/all%20of%20it.bin';
        $json = (string) json_encode($gltf, mt_rand(0, 1) === 0 ? 0 : JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE);
        if ($how === 'gltf') {
            return Gltf::keep($json);
        }
        $path = Gltf::keep('').'.zip';
        $zip = new \ZipArchive;
        $zip->open($path, \ZipArchive::CREATE);
        $zip->addFromString('My Model/scene.GLTF', $json);
        $zip->addFromString('My Model/data/All of it.bin', $this->bytes);
        $zip->close();
        register_shutdown_function(static fn () => @unlink($path));

        return $path;
    }

    /** @return array{float, float, float, float, float, float}|null around what the node and all below it draw */
    public function box(int $node): ?array
    {
        $all = [];
        foreach ($this->places as $other => $places) {
            for ($above = $other; $above !== $node && $above >= 0; $above = $this->parents[$above]);
            array_push($all, ...$above === $node ? $places : []);
        }
        $axis = static fn (int $at): array => array_column($all, $at);

        return $all === [] ? null : [min($axis(0)), min($axis(1)), min($axis(2)), max($axis(0)), max($axis(1)), max($axis(2))];
    }

    /**
     * @param array<string, mixed> $node
     * @param list<float>          $world
     */
    private function fill(array &$node, int $index, array $world): void
    {
        $what = mt_rand(0, 9);
        if ($what < 6) {
            $mesh = mt_rand(0, count($this->meshes) - 1);
            $node['mesh'] = $mesh;
            $this->counts['parts']++;
            $this->counts['triangles'] += $this->meshes[$mesh]['triangles'];
            $this->counts['vertices'] += $this->meshes[$mesh]['vertices'];
            $this->places[$index] = array_map(static fn (array $p): array => self::moved($world, $p), $this->meshes[$mesh]['points']);
        } elseif ($what === 6) {
            $node['camera'] = 0;
            $this->counts['cameras']++;
        } elseif ($what === 7) {
            $node['extensions'] = ['KHR_lights_punctual' => ['light' => 0]];
            $this->counts['lights']++;
        }
        if (mt_rand(0, 2) === 0) {
            $node['extras'] = ['class' => 'Wall', 'Fire rating' => mt_rand(30, 90), 'deep' => ['er' => [1, null]], 'note' => "line\nline"];
        }
    }

    private function addMesh(): void
    {
        $points = $pieces = [];
        $triangles = $vertices = 0;
        foreach (range(1, mt_rand(1, 3)) as $_) {
            $count = mt_rand(3, 30);
            $some = [];
            $floats = array_map(static fn (int $_): float => mt_rand(-4000, 4000) / 1000, range(1, 3 * $count));
            [$accessor, $read] = match (mt_rand(0, 3)) {
                0 => $this->strided($floats),
                1 => $this->quantized($floats),
                2 => $this->sparse($floats),
                default => $this->plain($floats),
            };
            foreach (array_chunk($read, 3) as [$x, $y, $z]) {
                $some[] = [$x, $y, $z];
            }
            $mode = [4, 4, 5, 6][mt_rand(0, 3)];
            $drawn = $mode === 4 ? 3 * mt_rand(1, 12) : mt_rand(3, 20);
            $corners = array_map(static fn (int $_): int => mt_rand(0, $count - 1), range(1, $drawn));
            $piece = ['attributes' => ['POSITION' => $accessor], 'mode' => $mode];
            if (mt_rand(0, 3) > 0) {
                $wide = mt_rand(0, 2);
                $piece['indices'] = $this->accessor(
                    pack(['C*', 'v*', 'V*'][$wide], ...$corners),
                    [5121, 5123, 5125][$wide],
                    'SCALAR',
                    $drawn,
                );
            } else {
                $drawn = $count;
            }
            $triangles += $mode === 4 ? intdiv($drawn, 3) : $drawn - 2;
            $vertices += $count;
            $pieces[] = $piece;
            array_push($points, ...$some);
        }
        $this->gltf['meshes'][] = ['primitives' => $pieces, 'name' => 'Mesh '.count($this->meshes)];
        $this->meshes[] = ['points' => $points, 'triangles' => $triangles, 'vertices' => $vertices];
    }

    /**
     * @param list<float> $floats
     *
     * @return array{int, list<float>} accessor, and what it holds
     */
    private function plain(array $floats): array
    {
        return [$this->accessor(pack('g*', ...$floats), 5126, 'VEC3', intdiv(count($floats), 3)), self::rounded($floats)];
    }

    /**
     * Among other bytes, 20 for each vertex, and not from the start of its view.
     *
     * @param list<float> $floats
     *
     * @return array{int, list<float>}
     */
    private function strided(array $floats): array
    {
        $bytes = 'somebody';
        foreach (array_chunk($floats, 3) as $point) {
            $bytes .= pack('g*', ...$point).random_bytes(8);
        }
        $view = $this->view($bytes, ['byteStride' => 20]);

        return [
            $this->add('accessors', [
                'bufferView' => $view,
                'byteOffset' => 8,
                'componentType' => 5126,
                'type' => 'VEC3',
                'count' => intdiv(count($floats), 3),
            ]),
            self::rounded($floats),
        ];
    }

    /**
     * As signed bytes of which 127 is 1.
     *
     * @param list<float> $floats
     *
     * @return array{int, list<float>}
     */
    private function quantized(array $floats): array
    {
        $steps = array_map(static fn (float $value): int => (int) round((127 * $value) / 4), $floats);
        $accessor = $this->accessor(pack('c*', ...$steps), 5120, 'VEC3', intdiv(count($floats), 3), ['normalized' => true]);

        return [$accessor, array_map(static fn (int $step): float => max(-1.0, $step / 127), $steps)];
    }

    /**
     * Nothing but zeros, with some vertices put in their place.
     *
     * @param list<float> $floats
     *
     * @return array{int, list<float>}
     */
    private function sparse(array $floats): array
    {
        $count = intdiv(count($floats), 3);
        $chosen = array_values(array_filter(range(0, $count - 1), static fn (int $at): bool => $at === 0 || mt_rand(0, 1) === 0));
        $values = array_merge(...array_map(static fn (int $at): array => array_slice($floats, 3 * $at, 3), $chosen));
        $read = array_fill(0, 3 * $count, 0.0);
        foreach ($chosen as $nth => $at) {
            array_splice($read, 3 * $at, 3, array_slice($values, 3 * $nth, 3));
        }
        $accessor = $this->add('accessors', [
            'componentType' => 5126,
            'type' => 'VEC3',
            'count' => $count,
            'sparse' => [
                'count' => count($chosen),
                'indices' => ['bufferView' => $this->view(pack('v*', ...$chosen)), 'componentType' => 5123],
                'values' => ['bufferView' => $this->view(pack('g*', ...$values))],
            ],
        ]);

        return [$accessor, self::rounded($read)];
    }

    /** @param array<string, mixed> $more */
    private function accessor(string $bytes, int $type, string $shape, int $count, array $more = []): int
    {
        $entry = ['bufferView' => $this->view($bytes), 'componentType' => $type, 'type' => $shape, 'count' => $count];

        return $this->add('accessors', $entry + $more);
    }

    /** @param array<string, mixed> $more */
    private function view(string $bytes, array $more = []): int
    {
        $this->bytes .= str_repeat("\xAA", -strlen($this->bytes) & 3);
        $view = ['buffer' => 0, 'byteOffset' => strlen($this->bytes), 'byteLength' => strlen($bytes)];
        $this->bytes .= $bytes;

        return $this->add('bufferViews', $view + $more);
    }

    /** @param array<string, mixed> $entry */
    private function add(string $list, array $entry): int
    {
        $this->gltf[$list][] = $entry;

        return count($this->gltf[$list]) - 1;
    }

    /** @return array{array<string, mixed>, list<float>} a node's placement as the file says it, and as three rows of four numbers */
    private static function placed(): array
    {
        if (mt_rand(0, 3) === 0) {
            $rows = [];
            for ($row = 0; $row < 3; $row++) {
                array_push($rows, mt_rand(-150, 150) / 100, mt_rand(-150, 150) / 100, mt_rand(-150, 150) / 100, mt_rand(-900, 900) / 100);
            }
            $columns = [];
            foreach ([0, 1, 2, 3] as $column) {
                array_push($columns, $rows[$column], $rows[4 + $column], $rows[8 + $column], $column === 3 ? 1 : 0);
            }

            return [['matrix' => $columns], $rows];
        }
        $node = [];
        if (mt_rand(0, 4) > 0) {
            $node['translation'] = [mt_rand(-90, 90), mt_rand(-900, 900) / 10, 0.25];
        }
        if (mt_rand(0, 1) === 0) {
            // About one axis, so that its rows can be written down without anybody's formula for quaternions.
            $turn = deg2rad(mt_rand(-179, 179));
            $node['rotation'] = [0, 0, sin($turn / 2), cos($turn / 2)];
        }
        if (mt_rand(0, 2) === 0) {
            $node['scale'] = [mt_rand(1, 300) / 100, -mt_rand(1, 300) / 100, mt_rand(1, 300) / 100];
        }
        [$x, $y, $z] = $node['translation'] ?? [0, 0, 0];
        [$a, $b, $c] = $node['scale'] ?? [1, 1, 1];
        [$sin, $cos] = isset($turn) ? [sin($turn), cos($turn)] : [0.0, 1.0];

        return [$node, [$cos * $a, -$sin * $b, 0.0, $x, $sin * $a, $cos * $b, 0.0, $y, 0.0, 0.0, $c, $z]];
    }

    /** @return list<float> turns y up into z up */
    private static function yUp(): array
    {
        return [1.0, 0.0, 0.0, 0.0, 0.0, 0.0, -1.0, 0.0, 0.0, 1.0, 0.0, 0.0];
    }

    /**
     * @param list<float> $outer
     * @param list<float> $inner
     *
     * @return list<float>
     */
    private static function times(array $outer, array $inner): array
    {
        $product = [];
        foreach ([0, 1, 2] as $row) {
            foreach ([0, 1, 2, 3] as $column) {
                $sum = $column === 3 ? $outer[4 * $row + 3] : 0.0;
                foreach ([0, 1, 2] as $k) {
                    $sum += $outer[4 * $row + $k] * $inner[4 * $k + $column];
                }
                $product[] = $sum;
            }
        }

        return $product;
    }

    /**
     * @param list<float>                $world
     * @param array{float, float, float} $p
     *
     * @return array{float, float, float}
     */
    private static function moved(array $world, array $p): array
    {
        $row = static fn (int $at): float => $world[$at] * $p[0] + $world[$at + 1] * $p[1] + $world[$at + 2] * $p[2] + $world[$at + 3];

        return [$row(0), $row(4), $row(8)];
    }

    /**
     * @param list<float> $floats
     *
     * @return list<float> as 32-bit numbers have them
     */
    private static function rounded(array $floats): array
    {
        return array_values((array) unpack('g*', pack('g*', ...$floats)));
    }
}
