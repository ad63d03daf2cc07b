<?php

declare(strict_types=1);

namespace MarlpitBaths;

use VineShelf\Geometry\GlbWriter;
use VineShelf\Scene\Packed;

/**
 * Nodes and meshes of the file that is being written. Places are metres with z up; one node above everything turns them to the
 * file format's axes, as exporters do.
 *
 * @phpstan-type Place array{float, float, float}
 */
final class Model
{
    public readonly GlbWriter $file;

    private readonly Palette $palette;

    /** @var array<string, int> */
    private array $meshes = [];

    /** @var array<int, int> triangles by mesh */
    private array $meshTriangles = [];

    /** @var list<array<string, mixed>> */
    private array $nodes = [];

    /** @var array<int, list<int>> */
    private array $children = [];

    /** @var list<array<string, mixed>> */
    private array $lights = [];

    /** @var list<int> nodes as they stand in the file, where that is not as they came */
    private array $order = [];

    public int $triangles = 0;

    /** @param float $detail how finely round things are cut; 1 is the demo */
    public function __construct(public readonly float $detail = 1.0)
    {
        $this->file = new GlbWriter('Outside exporter 4.1');
        $this->palette = new Palette($this->file);
    }

    /** Sides for something that has $sides at detail 1. */
    public function sides(int $sides): int
    {
        return max(4, (int) round($sides * $this->detail));
    }

    /** @param callable(): array<string, Shape> $make shape by material */
    public function mesh(string $name, callable $make): int
    {
        if (isset($this->meshes[$name])) {
            return $this->meshes[$name];
        }
        $primitives = [];
        $triangles = 0;
        foreach ($make() as $material => $shape) {
            $count = intdiv(count($shape->positions), 3);
            $xs = $ys = $zs = [];
            foreach (array_chunk($shape->positions, 3) as [$x, $y, $z]) {
                $xs[] = (float) $x;
                $ys[] = (float) $y;
                $zs[] = (float) $z;
            }
            if ($xs === []) {
                continue;
            }
            $rounded = static fn (float $value): float => Packed::float32(pack('g', $value), 0, 1)[0];
            $attributes = [
                'POSITION' => $this->file->accessor($this->file->view(pack('g*', ...$shape->positions), 34962), 5126, 'VEC3', $count, [
                    'min' => array_map($rounded, [min($xs), min($ys), min($zs)]),
                    'max' => array_map($rounded, [max($xs), max($ys), max($zs)]),
                ]),
                'NORMAL' => $this->file->accessor($this->file->view(pack('g*', ...$shape->normals), 34962), 5126, 'VEC3', $count),
            ];
            $span = $this->palette->span($material);
            if ($span !== null) {
                $attributes['TEXCOORD_0'] = $this->file->accessor(
                    $this->file->view(pack('g*', ...array_map(static fn (float $value): float => $value / $span, $shape->uvs)), 34962),
                    5126,
                    'VEC2',
                    $count,
                );
            }
            $small = $count < 65536;
            $primitives[] = [
                'attributes' => $attributes,
                'indices' => $this->file->accessor(
                    $this->file->view(pack($small ? 'v*' : 'V*', ...$shape->indices), 34963),
                    $small ? 5123 : 5125,
                    'SCALAR',
                    count($shape->indices),
                ),
                'material' => $this->palette->material($material),
            ];
            $triangles += intdiv(count($shape->indices), 3);
        }
        $index = $this->file->add('meshes', ['name' => $name, 'primitives' => $primitives]);
        $this->meshTriangles[$index] = $triangles;

        return $this->meshes[$name] = $index;
    }

    /**
     * @param array<string, mixed> $properties
     * @param Place                $at
     */
    public function group(?int $parent, string $name, array $properties = [], array $at = [0.0, 0.0, 0.0], float $turn = 0.0): int
    {
        return $this->node($parent, $name, $properties, $at, $turn);
    }

    /**
     * @param array<string, mixed> $properties
     * @param Place                $at
     * @param Place                $scale
     */
    public function part(
        int $parent,
        string $name,
        int $mesh,
        array $properties = [],
        array $at = [0.0, 0.0, 0.0],
        float $turn = 0.0,
        array $scale = [1.0, 1.0, 1.0],
    ): int {
        $this->triangles += $this->meshTriangles[$mesh];

        return $this->node($parent, $name, $properties, $at, $turn, $scale, ['mesh' => $mesh]);
    }

    /** @param Place $at */
    public function lamp(int $parent, string $name, array $at, string $type, float $intensity): int
    {
        $this->file->uses('KHR_lights_punctual');
        $this->lights[] = ['name' => $name, 'type' => $type, 'color' => [1.0, 0.93, 0.8], 'intensity' => $intensity];

        return $this->node(
            $parent,
            $name,
            ['layer' => '95 Lights'],
            $at,
            0.0,
            [1.0, 1.0, 1.0],
            ['extensions' => ['KHR_lights_punctual' => ['light' => count($this->lights) - 1]]],
        );
    }

    /**
     * @param Place $eye
     * @param Place $at
     */
    public function camera(int $parent, string $name, array $eye, array $at, float $fieldOfView): int
    {
        $camera = $this->file->add('cameras', [
            'name' => $name,
            'type' => 'perspective',
            'perspective' => ['yfov' => deg2rad($fieldOfView), 'aspectRatio' => 1.6, 'znear' => 0.1, 'zfar' => 500],
        ]);
        [$x, $y, $z] = [$at[0] - $eye[0], $at[1] - $eye[1], $at[2] - $eye[2]];
        $yaw = atan2($y, $x) - M_PI / 2;
        $pitch = atan2($z, hypot($x, $y)) + M_PI / 2;
        $rotation = [
            sin($pitch / 2) * cos($yaw / 2),
            sin($pitch / 2) * sin($yaw / 2),
            cos($pitch / 2) * sin($yaw / 2),
            cos($pitch / 2) * cos($yaw / 2),
        ];

        return $this->node($parent, $name, [], $eye, 0.0, [1.0, 1.0, 1.0], ['camera' => $camera, 'rotation' => $rotation]);
    }

    /** Puts the nodes into the file in no order, as some exporters do; the first stays the first. */
    public function shuffle(): void
    {
        $order = range(1, count($this->nodes) - 1);
        for ($last = count($order) - 1; $last > 0; $last--) {
            $other = mt_rand(0, $last);
            [$order[$last], $order[$other]] = [$order[$other], $order[$last]];
        }
        $this->order = [0, ...$order];
    }

    /** @param resource $out */
    public function write($out): void
    {
        $order = $this->order === [] ? array_keys($this->nodes) : $this->order;
        $places = array_flip($order);
        foreach ($order as $index) {
            $node = $this->nodes[$index];
            if (isset($this->children[$index])) {
                $node['children'] = array_map(static fn (int $child): int => $places[$child], $this->children[$index]);
            }
            $this->file->add('nodes', $node);
        }
        $this->file->add('scenes', ['name' => 'Marlpit Baths', 'nodes' => [0]]);
        $this->file->set('scene', 0);
        if ($this->lights !== []) {
            $this->file->set('extensions', ['KHR_lights_punctual' => ['lights' => $this->lights]]);
        }
        $this->file->write($out);
    }

    public function objects(): int
    {
        return count($this->nodes);
    }

    /**
     * @param array<string, mixed> $properties
     * @param Place                $at
     * @param Place                $scale
     * @param array<string, mixed> $more
     */
    private function node(
        ?int $parent,
        string $name,
        array $properties,
        array $at,
        float $turn,
        array $scale = [1.0, 1.0, 1.0],
        array $more = [],
    ): int {
        $node = $name === '' ? [] : ['name' => $name];
        if ($parent === null) {
            $node['rotation'] = [-M_SQRT1_2, 0, 0, M_SQRT1_2];
        }
        if ($at !== [0.0, 0.0, 0.0]) {
            $node['translation'] = array_map(static fn (float $value): float => round($value, 4), $at);
        }
        if ($turn !== 0.0) {
            $node['rotation'] = [0, 0, round(sin($turn / 2), 7), round(cos($turn / 2), 7)];
        }
        if ($scale !== [1.0, 1.0, 1.0]) {
            $node['scale'] = array_map(static fn (float $value): float => round($value, 5), $scale);
        }
        if ($properties !== []) {
            $node['extras'] = $properties;
        }
        $this->nodes[] = $more + $node;
        $index = count($this->nodes) - 1;
        if ($parent !== null) {
            $this->children[$parent][] = $index;
        }

        return $index;
    }
}
