<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\UnreadableFile;
use VineShelf\Geometry\Affine;

/**
 * The nodes of a file as columns, in file order, counted from 0.
 *
 * @phpstan-import-type Transform from Affine
 */
final class NodeColumns
{
    private const NO_MATRIX = [0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];

    public int $count = 0;

    /** @var list<string> */
    public array $names = [];

    /** @var array<int, int> */
    public array $meshes = [];

    /** @var array<int, int> */
    public array $cameras = [];

    /** @var array<int, int> */
    public array $lights = [];

    /** @var array<int, string> custom properties as JSON */
    public array $extras = [];

    /** @var array<int, array<string, int>> attribute accessors of GPU instancing */
    public array $instancing = [];

    /** @var array<int, int> */
    public array $parents = [];

    /** @var array<int, int> */
    public array $firstChild = [];

    /** @var array<int, int> */
    public array $nextSibling = [];

    /** @var array<int, string> packed local transform, absent for the identity */
    public array $transforms = [];

    public function add(Entry $node): void
    {
        $index = $this->count++;
        $this->names[] = $node->text('name');
        if ($node->has('mesh')) {
            $this->meshes[$index] = $node->required('mesh');
        }
        if ($node->has('camera')) {
            $this->cameras[$index] = $node->required('camera');
        }
        if ($node->has('extensions')) {
            $light = $node->extension('KHR_lights_punctual')?->index('light');
            if ($light !== null) {
                $this->lights[$index] = $light;
            }
            $instancing = $node->extension('EXT_mesh_gpu_instancing')?->entry('attributes');
            if ($instancing !== null) {
                foreach (['TRANSLATION', 'ROTATION', 'SCALE'] as $name) {
                    $accessor = $instancing->index($name);
                    if ($accessor !== null) {
                        $this->instancing[$index][$name] = $accessor;
                    }
                }
            }
        }
        if ($node->has('extras')) {
            $this->extras[$index] =
                json_encode(
                    $node->raw('extras'),
                    JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PARTIAL_OUTPUT_ON_ERROR,
                ) ?:
                '{}';
        }
        $transform = $node->has('matrix') ? Affine::fromColumns($node->numbers('matrix', self::NO_MATRIX)) : self::composed($node);
        if ($transform !== null) {
            $this->transforms[$index] = Affine::pack($transform);
        }
        $before = -1;
        foreach ($node->has('children') ? $node->indices('children') : [] as $child) {
            if (isset($this->parents[$child])) {
                throw UnreadableFile::because("Node $child stands under two parents, node {$this->parents[$child]} and node $index.");
            }
            $this->parents[$child] = $index;
            if ($before < 0) {
                $this->firstChild[$index] = $child;
            } else {
                $this->nextSibling[$before] = $child;
            }
            $before = $child;
        }
    }

    /** @return Transform|null null for a node that is where its parent is */
    private static function composed(Entry $node): ?array
    {
        $move = $node->has('translation') ? $node->numbers('translation', [0.0, 0.0, 0.0]) : null;
        $turn = $node->has('rotation') ? $node->numbers('rotation', [0.0, 0.0, 0.0, 1.0]) : null;
        $scale = $node->has('scale') ? $node->numbers('scale', [1.0, 1.0, 1.0]) : null;
        if ($turn === null && $scale === null) {
            return $move === null ? null : [1.0, 0.0, 0.0, $move[0], 0.0, 1.0, 0.0, $move[1], 0.0, 0.0, 1.0, $move[2]];
        }

        return Affine::compose($move ?? [0.0, 0.0, 0.0], $turn ?? [0.0, 0.0, 0.0, 1.0], $scale ?? [1.0, 1.0, 1.0]);
    }
}
