<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Limits;
use VineShelf\Formats\SortedExtras;
use VineShelf\Formats\TakenObjects;
use VineShelf\Formats\UnreadableFile;
use VineShelf\Geometry\Affine;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Packed;

/**
 * Walks the scene that opens and makes one object of every node in it.
 *
 * @phpstan-import-type Transform from Affine
 */
final class NodeTree
{
    private int $elsewhere = 0;

    private int $emptyGroups = 0;

    private int $instances = 0;

    /**
     * @param list<Entry> $cameras
     * @param list<Entry> $lights
     */
    public function __construct(
        private readonly NodeColumns $nodes,
        private readonly MeshReader $meshes,
        private readonly Buffers $buffers,
        private readonly array $cameras,
        private readonly array $lights,
        private readonly Limits $limits,
    ) {}

    /** @param list<Entry> $scenes */
    public function objects(array $scenes, ?int $scene): TakenObjects
    {
        $objects = new TakenObjects;
        $nodes = $this->nodes;
        $visited = [];
        $rows = [0];
        $worlds = [Affine::Y_UP_TO_Z_UP];
        foreach ($this->roots($scenes, $scene) as $root) {
            if (isset($nodes->parents[$root])) {
                throw UnreadableFile::because("Node $root is a root of the scene and stands under node {$nodes->parents[$root]} as well.");
            }
            $stack = [[$root, 1]];
            while (($top = array_pop($stack)) !== null) {
                [$node, $depth] = $top;
                if ($node >= $nodes->count) {
                    throw UnreadableFile::badReference(
                        isset($nodes->parents[$node]) ? "Node {$nodes->parents[$node]}" : 'The scene',
                        'node',
                        $node,
                    );
                }
                if (isset($visited[$node])) {
                    throw UnreadableFile::because("Node $node stands in the scene twice, or holds itself.");
                }
                if ($depth > $this->limits->depth) {
                    throw UnreadableFile::tooMuch('too many levels of nesting', $depth, $this->limits->depth);
                }
                if ($objects->count() >= $this->limits->objects) {
                    throw UnreadableFile::tooMuch('too many objects', $nodes->count, $this->limits->objects);
                }
                $visited[$node] = true;
                $world = isset($nodes->transforms[$node])
                    ? Affine::product($worlds[$depth - 1], Affine::unpack($nodes->transforms[$node]))
                    : $worlds[$depth - 1];
                $worlds[$depth] = $world;
                $rows[$depth] = $this->add($objects, $node, $rows[$depth - 1], $world);
                if (isset($nodes->nextSibling[$node])) {
                    $stack[] = [$nodes->nextSibling[$node], $depth];
                }
                if (isset($nodes->firstChild[$node])) {
                    $stack[] = [$nodes->firstChild[$node], $depth + 1];
                }
            }
        }
        $this->elsewhere = $nodes->count - count($visited);

        return $objects;
    }

    /** @return list<string> */
    public function warnings(): array
    {
        $warnings = [];
        if ($this->elsewhere > 0) {
            $warnings[] =
                number_format($this->elsewhere).
                ' '.
                ($this->elsewhere === 1 ? 'node stands' : 'nodes stand').
                ' in no scene that opens, and was left out.';
        }
        if ($this->emptyGroups > 0) {
            $warnings[] =
                number_format($this->emptyGroups).
                ' '.
                ($this->emptyGroups === 1 ? 'node holds' : 'nodes hold').
                ' nothing at all; taken as '.
                ($this->emptyGroups === 1 ? 'a marker' : 'markers').
                '.';
        }

        return $warnings;
    }

    /**
     * @param list<Entry> $scenes
     *
     * @return list<int>
     */
    private function roots(array $scenes, ?int $scene): array
    {
        if ($scene !== null && ! isset($scenes[$scene])) {
            throw UnreadableFile::badReference('The file', 'scene', $scene);
        }
        if ($scenes !== []) {
            return $scenes[$scene ?? 0]->indices('nodes');
        }
        $roots = [];
        for ($node = 0; $node < $this->nodes->count; $node++) {
            if (! isset($this->nodes->parents[$node])) {
                $roots[] = $node;
            }
        }

        return $roots;
    }

    /** @param Transform $world */
    private function add(TakenObjects $objects, int $node, int $parent, array $world): int
    {
        $nodes = $this->nodes;
        $mesh = $nodes->meshes[$node] ?? -1;
        $kind = match (true) {
            $mesh >= 0 => $this->meshes->facts($mesh)->kind,
            isset($nodes->cameras[$node]) => Kind::Camera,
            isset($nodes->lights[$node]) => Kind::Light,
            isset($nodes->firstChild[$node]) => Kind::Group,
            default => Kind::Marker,
        };
        if ($kind === Kind::Marker) {
            $this->emptyGroups++;
        }
        $row = $objects->add($parent, $nodes->names[$node], $kind, $node, $mesh, $world);
        $properties =
            isset($nodes->cameras[$node]) || isset($nodes->lights[$node]) ? $this->properties($node) : $nodes->extras[$node] ?? null;
        $sorted = $properties === null ? null : SortedExtras::read($properties);
        if ($sorted !== null) {
            [$objects->sorted[$row], $properties] = $sorted;
        }
        if ($properties !== null) {
            $objects->properties[$row] = $properties;
            $class = self::className($properties);
            if ($class !== null) {
                $objects->classes[$row] = $class;
            }
        }
        if ($mesh >= 0 && isset($nodes->instancing[$node])) {
            $objects->instances[$row] = $this->instances($nodes->instancing[$node], $node, $world);
        }

        return $row;
    }

    /** What the properties call "class", in whatever case. */
    private static function className(string $properties): ?string
    {
        if (preg_match('~"class":"((?:[^"\\\\]|\\\\.){1,80})"~i', $properties, $found) !== 1) {
            return null;
        }
        $class = json_decode('"'.$found[1].'"');

        return is_string($class) ? $class : null;
    }

    private function properties(int $node): ?string
    {
        $more = [];
        if (isset($this->nodes->cameras[$node])) {
            $camera =
                $this->cameras[$this->nodes->cameras[$node]] ??
                throw UnreadableFile::badReference("Node $node", 'camera', $this->nodes->cameras[$node]);
            $more['camera'] = array_filter(['type' => $camera->text('type')] + $this->numbersOf($camera->entry($camera->text('type'))));
        }
        if (isset($this->nodes->lights[$node])) {
            $light =
                $this->lights[$this->nodes->lights[$node]] ??
                throw UnreadableFile::badReference("Node $node", 'light', $this->nodes->lights[$node]);
            $more['light'] = [
                'type' => $light->text('type'),
                'colour' => $light->numbers('color', [1.0, 1.0, 1.0]),
                'intensity' => $light->number('intensity', 1.0),
            ] + self::reach($light);
        }
        $own = $this->nodes->extras[$node] ?? null;
        if ($more === []) {
            return $own;
        }
        $decoded = $own === null ? [] : json_decode($own, true);

        return json_encode(
            (is_array($decoded) ? $decoded : ['extras' => $decoded]) + $more,
            JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
        ) ?:
            null;
    }

    /** @return array<string, float> how far a light reaches, in metres, and between which angles, in radians, as far as it says so */
    private static function reach(Entry $light): array
    {
        $spot = $light->text('type') === 'spot' ? $light->entry('spot') : null;

        return ($light->has('range') ? ['range' => $light->number('range', 0.0)] : []) +
            ($spot?->has('innerConeAngle') === true ? ['innerCone' => $spot->number('innerConeAngle', 0.0)] : []) +
            ($spot?->has('outerConeAngle') === true ? ['outerCone' => $spot->number('outerConeAngle', 0.0)] : []);
    }

    /** @return array<string, float> */
    private function numbersOf(?Entry $entry): array
    {
        $numbers = [];
        foreach (['yfov', 'aspectRatio', 'znear', 'zfar', 'xmag', 'ymag'] as $name) {
            if ($entry !== null && $entry->has($name)) {
                $numbers[$name] = $entry->number($name, 0.0);
            }
        }

        return $numbers;
    }

    /**
     * @param array<string, int> $attributes
     * @param Transform          $world
     */
    private function instances(array $attributes, int $node, array $world): string
    {
        $columns = [];
        $count = null;
        foreach ($attributes as $name => $index) {
            $accessor = $this->buffers->accessor($index, "The instancing of node $node");
            if ($accessor->components !== ($name === 'ROTATION' ? 4 : 3) || ($count !== null && $count !== $accessor->count)) {
                throw UnreadableFile::because("The instancing of node $node has attributes that do not fit each other.");
            }
            $count = $accessor->count;
            if ($this->instances + $count > $this->limits->placements) {
                throw UnreadableFile::tooMuch("too many instances at node $node", $this->instances + $count, $this->limits->placements);
            }
            $columns[$name] = $this->buffers->floats($accessor);
        }
        $this->instances += (int) $count;
        $packed = '';
        for ($at = 0; $at < (int) $count; $at++) {
            $packed .= Affine::pack(
                Affine::product(
                    $world,
                    Affine::compose(
                        isset($columns['TRANSLATION']) ? Packed::float32($columns['TRANSLATION'], $at * 12, 3) : [0.0, 0.0, 0.0],
                        isset($columns['ROTATION']) ? Packed::float32($columns['ROTATION'], $at * 16, 4) : [0.0, 0.0, 0.0, 1.0],
                        isset($columns['SCALE']) ? Packed::float32($columns['SCALE'], $at * 12, 3) : [1.0, 1.0, 1.0],
                    ),
                ),
            );
        }

        return $packed;
    }
}
