<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\UnreadableFile;
use VineShelf\Geometry\Affine;

/** The nodes of a file as columns, in file order, counted from 0. */
final class NodeColumns
{
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
        $this->names[] = mb_scrub($node->text('name'));
        $this->keep($this->meshes, $index, $node->index('mesh'));
        $this->keep($this->cameras, $index, $node->index('camera'));
        if ($node->has('extensions')) {
            $this->keep($this->lights, $index, $node->extension('KHR_lights_punctual')?->index('light'));
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
            $this->extras[$index] = json_encode($node->raw('extras'), JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PARTIAL_OUTPUT_ON_ERROR) ?: '{}';
        }
        if ($node->has('matrix')) {
            $this->transforms[$index] = Affine::pack(Affine::fromColumns($node->numbers('matrix', array_fill(0, 16, 0.0))));
        } elseif ($node->has('translation') || $node->has('rotation') || $node->has('scale')) {
            $this->transforms[$index] = Affine::pack(Affine::compose(
                $node->numbers('translation', [0.0, 0.0, 0.0]),
                $node->numbers('rotation', [0.0, 0.0, 0.0, 1.0]),
                $node->numbers('scale', [1.0, 1.0, 1.0]),
            ));
        }
        $before = -1;
        foreach ($node->indices('children') as $child) {
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

    /** @param array<int, int> $column */
    private function keep(array &$column, int $index, ?int $value): void
    {
        if ($value !== null) {
            $column[$index] = $value;
        }
    }
}
