<?php

declare(strict_types=1);

namespace VineShelf\Export;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\GlbWriter;
use VineShelf\Geometry\PackedShape;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Kind;

/**
 * Writes objects as binary glTF 2.0, each at its rung: Full with its pictures, Plain without, Coarse and Ghost as their coarser version,
 * Box as a box. Groups hold what they held, and what draws and holds others becomes a group that holds it too; places stand in what draws,
 * so they come out as exact as they were. Metres, y up, as glTF has it.
 *
 * @phpstan-import-type Transform from Affine
 */
final class GltfExport
{
    private readonly GlbWriter $file;

    private readonly MeshWriter $meshes;

    /** @var list<array{array<string, mixed>, list<int>}> nodes, with what each holds */
    private array $nodes = [];

    /** @var list<int> */
    private array $roots = [];

    /** @var list<array<string, mixed>> */
    private array $lights = [];

    public function __construct(private readonly Shapes $shapes, Surfaces $surfaces, bool $isQuantized = false, bool $isCompressed = false)
    {
        $this->file = new GlbWriter;
        $this->meshes = new MeshWriter($this->file, new MaterialWriter($this->file, $surfaces), $isQuantized, $isCompressed);
    }

    /** @return int its index, for what it holds */
    public function add(Part $part): int
    {
        $node = ['name' => $part->name] + ($part->extras === [] ? [] : ['extras' => $part->extras]);
        $shape = $part->mesh === 0 ? null : $this->shape($part);
        $more = match (true) {
            $shape !== null => $this->drawn($part, $shape),
            $part->kind === Kind::Light => $this->light($part),
            $part->kind === Kind::Camera => $this->camera($part),
            $part->kind === Kind::Group, $part->placements === [] => [],
            default => ['matrix' => self::columns(Affine::product(Affine::Z_UP_TO_Y_UP, $part->placements[0]))],
        };

        // What stands in it is placed in the world as well: a place of its own must not move that a second time.
        if ($part->holds && $more !== []) {
            $holder = $this->node($node, $part->parent);
            $this->node($node + $more, $holder);

            return $holder;
        }

        return $this->node($node + $more, $part->parent);
    }

    /** @param resource $out @return int bytes that it takes */
    public function write($out): int
    {
        foreach ($this->nodes as [$node, $children]) {
            $this->file->add('nodes', $node + ($children === [] ? [] : ['children' => $children]));
        }
        if ($this->lights !== []) {
            $this->file->uses('KHR_lights_punctual');
            $this->file->set('extensions', ['KHR_lights_punctual' => ['lights' => $this->lights]]);
        }
        $this->file->add('scenes', $this->roots === [] ? [] : ['nodes' => $this->roots]);
        $this->file->set('scene', 0);

        return $this->file->write($out);
    }

    public function bytes(): string
    {
        $out = fopen('php://temp/maxmemory:67108864', 'w+b') ?: throw new \RuntimeException('No room for temporary bytes.');
        $this->write($out);
        rewind($out);

        return (string) stream_get_contents($out);
    }

    /** @param array<string, mixed> $node */
    private function node(array $node, int $parent): int
    {
        $index = count($this->nodes);
        $this->nodes[] = [$node, []];
        if ($parent < 0) {
            $this->roots[] = $index;
        } else {
            $this->nodes[$parent][1][] = $index;
        }

        return $index;
    }

    private function shape(Part $part): ?PackedShape
    {
        return match ($part->rung) {
            Rung::Full, Rung::Plain => $this->shapes->fine($part->mesh),
            Rung::Coarse, Rung::Ghost => $this->shapes->coarse($part->mesh),
            Rung::Box => ($whole = $this->shapes->fine($part->mesh)) === null ? null : MeshWriter::box($whole),
            Rung::Hidden => null,
        };
    }

    /** @return array<string, mixed> members of the node that draws it */
    private function drawn(Part $part, PackedShape $shape): array
    {
        $isFlat = $part->rung !== Rung::Full;
        $key =
            "$part->mesh ".
            match ($part->rung) {
                Rung::Full, Rung::Plain => 'fine',
                Rung::Box => 'box',
                default => 'coarse',
            };
        $up = array_map(static fn (array $m): array => Affine::product(Affine::Z_UP_TO_Y_UP, $m), $part->placements);
        if ($up !== [] && array_filter($up, self::isSkewed(...)) !== []) {
            return $this->baked($key, $shape, $isFlat, $up);
        }
        $mesh = $this->meshes->index($key, $shape, $isFlat);
        $each = array_map(fn (array $m): array => self::columns($this->undone($m, $shape)), $up);

        return match (true) {
            $mesh === null, $each === [] => [],
            count($each) === 1 => ['mesh' => $mesh, 'matrix' => $each[0]],
            default => $this->instanced($mesh, $each),
        };
    }

    /**
     * What turns, scales and moves cannot say goes into the places themselves.
     *
     * @param non-empty-list<Transform> $up
     *
     * @return array<string, mixed>
     */
    private function baked(string $key, PackedShape $shape, bool $isFlat, array $up): array
    {
        [$x, $y, $z] = [$up[0][3], $up[0][7], $up[0][11]];
        $around = array_map(
            static fn (array $m): array => [
                $m[0],
                $m[1],
                $m[2],
                $m[3] - $x,
                $m[4],
                $m[5],
                $m[6],
                $m[7] - $y,
                $m[8],
                $m[9],
                $m[10],
                $m[11] - $z,
            ],
            $up,
        );
        $mesh = $this->meshes->index($key, $shape, $isFlat, $around);

        return $mesh === null ? [] : ['mesh' => $mesh, 'translation' => [$x, $y, $z]];
    }

    /**
     * Several placements of one mesh, in the way that EXT_mesh_gpu_instancing has for it.
     *
     * @param non-empty-list<list<float>> $each as glTF has them
     *
     * @return array<string, mixed>
     */
    private function instanced(int $mesh, array $each): array
    {
        $middle = [0.0, 0.0, 0.0];
        foreach ($each as $m) {
            foreach ([0, 1, 2] as $axis) {
                $middle[$axis] += $m[12 + $axis] / count($each);
            }
        }
        $moves = $turns = $scales = '';
        foreach ($each as $m) {
            [$turn, $scale] = Turn::of($m);
            $moves .= pack('g3', $m[12] - $middle[0], $m[13] - $middle[1], $m[14] - $middle[2]);
            $turns .= pack('g4', ...$turn);
            $scales .= pack('g3', ...$scale);
        }
        $this->file->uses('EXT_mesh_gpu_instancing', required: true);
        $accessor = fn (string $bytes, string $type): int => $this->file->accessor($this->file->view($bytes), 5126, $type, count($each));

        return [
            'mesh' => $mesh,
            'translation' => $middle,
            'extensions' => [
                'EXT_mesh_gpu_instancing' => [
                    'attributes' => [
                        'TRANSLATION' => $accessor($moves, 'VEC3'),
                        'ROTATION' => $accessor($turns, 'VEC4'),
                        'SCALE' => $accessor($scales, 'VEC3'),
                    ],
                ],
            ],
        ];
    }

    /** @return array<string, mixed> */
    private function light(Part $part): array
    {
        $type = is_string($part->about['type'] ?? null) ? $part->about['type'] : 'point';
        $colour = $part->about['colour'] ?? [1.0, 1.0, 1.0];
        $this->lights[] =
            ['type' => $type, 'color' => $colour, 'intensity' => $part->about['intensity'] ?? 1.0] +
            ($type === 'spot' ? ['spot' => new \stdClass] : []);

        return ['extensions' => ['KHR_lights_punctual' => ['light' => count($this->lights) - 1]]] + self::placed($part);
    }

    /** @return array<string, mixed> */
    private function camera(Part $part): array
    {
        $type = ($part->about['type'] ?? null) === 'orthographic' ? 'orthographic' : 'perspective';
        $numbers = array_diff_key($part->about, ['type' => true]);
        $numbers +=
            $type === 'perspective' ? ['yfov' => 0.7, 'znear' => 0.1] : ['xmag' => 1.0, 'ymag' => 1.0, 'znear' => 0.1, 'zfar' => 1000.0];

        return ['camera' => $this->file->add('cameras', ['type' => $type, $type => $numbers])] + self::placed($part);
    }

    /** @return array<string, mixed> */
    private static function placed(Part $part): array
    {
        return $part->placements === [] ? [] : ['matrix' => self::columns(Affine::product(Affine::Z_UP_TO_Y_UP, $part->placements[0]))];
    }

    /**
     * With what a mesh's places need before it.
     *
     * @param Transform $m
     *
     * @return Transform
     */
    private function undone(array $m, PackedShape $shape): array
    {
        [[$sx, $sy, $sz], [$x, $y, $z]] = $this->meshes->undo($shape);

        return Affine::product($m, [$sx, 0.0, 0.0, $x, 0.0, $sy, 0.0, $y, 0.0, 0.0, $sz, $z]);
    }

    /**
     * Whether turns, scales and moves alone cannot say it; what is flat along an axis has no turn that could be told.
     *
     * @param Transform $m
     */
    private static function isSkewed(array $m): bool
    {
        $dot = static fn (int $p, int $q): float => $m[$p] * $m[$q] + $m[$p + 4] * $m[$q + 4] + $m[$p + 8] * $m[$q + 8];
        [$x, $y, $z] = [$dot(0, 0), $dot(1, 1), $dot(2, 2)];

        return min($x, $y, $z) <= 1e-18 * max($x, $y, $z) ||
            abs($dot(0, 1)) > 1e-6 * sqrt($x * $y) ||
            abs($dot(1, 2)) > 1e-6 * sqrt($y * $z) ||
            abs($dot(2, 0)) > 1e-6 * sqrt($z * $x);
    }

    /**
     * As glTF has it.
     *
     * @param Transform $m
     *
     * @return list<float>
     */
    private static function columns(array $m): array
    {
        return [$m[0], $m[4], $m[8], 0.0, $m[1], $m[5], $m[9], 0.0, $m[2], $m[6], $m[10], 0.0, $m[3], $m[7], $m[11], 1.0];
    }
}
