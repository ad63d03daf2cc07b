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
 * Box as a box. Groups hold what they held and have no places: those stand in what draws, so they come out as exact as they were. What
 * draws and holds others gives them its place, so theirs are counted from there. Metres, y up, as glTF has it.
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

    /** @var array<int, Transform> where nodes are that others are counted from, y up, by index */
    private array $frames = [];

    /** @var Transform what undoes the place of what holds the part that is being added */
    private array $undoing = Affine::IDENTITY;

    public function __construct(private readonly Shapes $shapes, Surfaces $surfaces, bool $isQuantized = false, bool $isCompressed = false)
    {
        $this->file = new GlbWriter;
        $this->meshes = new MeshWriter($this->file, new MaterialWriter($this->file, $surfaces), $isQuantized, $isCompressed);
    }

    /** @return int its index, for what it holds */
    public function add(Part $part): int
    {
        $node = ['name' => $part->name] + ($part->extras === [] ? [] : ['extras' => $part->extras]);
        $frame = $this->frames[$part->parent] ?? Affine::IDENTITY;
        $this->undoing = Affine::undoing($frame);
        $shape = $part->mesh === 0 ? null : $this->shape($part);
        $more = match (true) {
            $shape !== null => $this->drawn($part, $shape),
            $part->kind === Kind::Light => $this->light($part),
            $part->kind === Kind::Camera => $this->camera($part),
            $part->kind === Kind::Group, $part->placements === [] => [],
            default => $this->placed($part),
        };
        $own = self::placeOf($more);
        if ($part->holds && ! Affine::isAlike($own)) {
            // What it holds would be bent with it: then it stands in a group that has its name.
            $holder = $this->node($node, $part->parent, $frame);
            $this->node($node + $more, $holder, $frame);

            return $holder;
        }

        return $this->node($node + $more, $part->parent, Affine::product($frame, $own));
    }

    /**
     * @param array<string, mixed> $members of a node
     *
     * @return Transform
     */
    private static function placeOf(array $members): array
    {
        /** @var list<float> $move */
        $move = $members['translation'] ?? [0.0, 0.0, 0.0];
        /** @var list<float>|null $matrix */
        $matrix = $members['matrix'] ?? null;

        return $matrix === null
            ? [1.0, 0.0, 0.0, $move[0], 0.0, 1.0, 0.0, $move[1], 0.0, 0.0, 1.0, $move[2]]
            : Affine::fromColumns($matrix);
    }

    /**
     * @param Transform $m metres, z up
     *
     * @return Transform y up, counted from what holds it
     */
    private function place(array $m): array
    {
        $up = Affine::product(Affine::Z_UP_TO_Y_UP, $m);

        return $this->undoing === Affine::IDENTITY ? $up : Affine::product($this->undoing, $up);
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

    /**
     * @param array<string, mixed> $node
     * @param Transform            $frame where it is
     */
    private function node(array $node, int $parent, array $frame): int
    {
        $index = count($this->nodes);
        $this->nodes[] = [$node, []];
        if ($frame !== Affine::IDENTITY) {
            $this->frames[$index] = $frame;
        }
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
        $up = array_map($this->place(...), $part->placements);
        if ($up === []) {
            return [];
        }
        // What holds others must not scale them otherwise in one direction than in another.
        $bends = $part->holds && count($up) === 1 && ! Affine::isAlike($this->undone($up[0], $shape));
        if ($bends || array_filter($up, self::isSkewed(...)) !== []) {
            return $this->baked($key, $shape, $isFlat, $up);
        }
        $mesh = $this->meshes->index($key, $shape, $isFlat);
        $each = array_map(fn (array $m): array => self::columns($this->undone($m, $shape)), $up);

        return match (true) {
            $mesh === null => [],
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
        $about = $part->about;
        $type = in_array($about['type'] ?? null, ['directional', 'point', 'spot'], true) ? $about['type'] : 'point';
        $number = static fn (string $name): int|float|null => is_int($about[$name] ?? null) || is_float($about[$name] ?? null)
            ? $about[$name]
            : null;
        $light = ['type' => $type, 'color' => $about['colour'] ?? [1.0, 1.0, 1.0], 'intensity' => $number('intensity') ?? 1.0];
        if ($type !== 'directional' && $number('range') > 0) {
            $light['range'] = $number('range');
        }
        if ($type === 'spot') {
            $cone = ['innerConeAngle' => $number('innerCone'), 'outerConeAngle' => $number('outerCone')];
            $light['spot'] = (object) array_filter($cone, static fn (int|float|null $angle): bool => $angle !== null);
        }
        $this->lights[] = $light;

        return ['extensions' => ['KHR_lights_punctual' => ['light' => count($this->lights) - 1]]] + $this->placed($part);
    }

    /** @return array<string, mixed> */
    private function camera(Part $part): array
    {
        $type = ($part->about['type'] ?? null) === 'orthographic' ? 'orthographic' : 'perspective';
        $numbers = array_diff_key($part->about, ['type' => true]);
        $numbers +=
            $type === 'perspective' ? ['yfov' => 0.7, 'znear' => 0.1] : ['xmag' => 1.0, 'ymag' => 1.0, 'znear' => 0.1, 'zfar' => 1000.0];

        return ['camera' => $this->file->add('cameras', ['type' => $type, $type => $numbers])] + $this->placed($part);
    }

    /** @return array<string, mixed> */
    private function placed(Part $part): array
    {
        return $part->placements === [] ? [] : ['matrix' => self::columns($this->place($part->placements[0]))];
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
