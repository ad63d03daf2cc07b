<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Archive;
use VineShelf\Formats\Limits;
use VineShelf\Formats\Reader;
use VineShelf\Formats\TakenTexture;
use VineShelf\Formats\UnreadableFile;

/**
 * Opens glTF 2.0: walks the JSON once, keeps what a static scene needs in columns, and leaves the geometry in the file until it is
 * asked for.
 */
final class GltfReader implements Reader
{
    private const SUPPORTED = [
        'KHR_lights_punctual',
        'KHR_mesh_quantization',
        'KHR_texture_transform',
        'EXT_mesh_gpu_instancing',
        'EXT_meshopt_compression',
        'EXT_texture_webp',
        'KHR_materials_pbrSpecularGlossiness',
        'KHR_materials_unlit',
        'KHR_materials_emissive_strength',
    ];

    /** Extensions that only refine how a surface looks; leaving them out changes no geometry. */
    private const APPEARANCE = [
        'KHR_materials_anisotropy',
        'KHR_materials_clearcoat',
        'KHR_materials_diffuse_transmission',
        'KHR_materials_dispersion',
        'KHR_materials_ior',
        'KHR_materials_iridescence',
        'KHR_materials_sheen',
        'KHR_materials_specular',
        'KHR_materials_transmission',
        'KHR_materials_variants',
        'KHR_materials_volume',
        'KHR_xmp_json_ld',
    ];

    /** What samplers may say, with the numbers that the format has for it. */
    private const SAMPLER = [
        'wrapS' => [33071, 33648, 10497],
        'wrapT' => [33071, 33648, 10497],
        'magFilter' => [9728, 9729],
        'minFilter' => [9728, 9729, 9984, 9985, 9986, 9987],
    ];

    /** What leaving something out means. */
    private const REASONS = [
        'skin' => ': skinned meshes stand as they were modelled',
        'animation' => ': the scene is taken as it stands at rest',
        'morph target set' => ': the scene is taken as it stands at rest',
        'picture' => ': nothing outside the file is ever fetched',
        'mesh piece' => ': without positions there is nothing to draw',
        'normal map' => ': on a part, pictures and normal maps must lie alike',
    ];

    /** What the entries of lists are called, where they are checked against the schema. */
    private const CALLED = [
        'nodes' => 'node ',
        'meshes' => 'mesh ',
        'accessors' => 'accessor ',
        'bufferViews' => 'buffer view ',
        'buffers' => 'buffer ',
        'materials' => 'material ',
        'textures' => 'texture ',
        'images' => 'image ',
        'samplers' => 'sampler ',
        'cameras' => 'camera ',
        'scenes' => 'scene ',
    ];

    private readonly Schema $schema;

    private NodeColumns $nodes;

    /** @var list<Accessor> */
    private array $accessors = [];

    /** @var list<BufferView> */
    private array $views = [];

    /** @var list<array{uri: string|null, length: int}> */
    private array $buffers = [];

    /** @var list<MeshEntry> */
    private array $meshes = [];

    private Materials $materials;

    /** @var list<array{image: int|null, sampler: int|null, name: string}> */
    private array $textures = [];

    /** @var list<array{uri: string|null, view: int|null, name: string}> */
    private array $images = [];

    /** @var list<array<string, int>> */
    private array $samplers = [];

    /** @var list<Entry> */
    private array $cameras = [];

    /** @var list<Entry> */
    private array $scenes = [];

    /** @var array<string, int> */
    private array $leftOut = [];

    /** @var list<Entry> */
    private array $lights = [];

    /** @var list<string> */
    private array $used = [];

    private ?int $scene = null;

    private bool $versioned = false;

    /** What all compressed views come to. */
    private int $unpackedBytes = 0;

    private function __construct(private readonly Limits $limits)
    {
        $this->nodes = new NodeColumns;
        $this->materials = new Materials;
        $this->schema = new Schema;
    }

    public static function knows(string $start): bool
    {
        return str_starts_with($start, 'glTF') || Archive::begins($start) || preg_match('~^(?:\xEF\xBB\xBF)?\s*\{~', $start) === 1;
    }

    /**
     * @param (callable(int, float): void)|null $progress called now and then with the number of nodes read so far, and how much of the
     *     whole that is, up to 1; may throw to stop
     * @param bool                       $beside   whether a .gltf may use files in its own folder or below it
     *
     * @throws UnreadableFile
     */
    public static function read(string $path, Limits $limits = new Limits, ?callable $progress = null, bool $beside = false): GltfIntake
    {
        $container = Container::open($path, $limits, $beside);
        $reader = new self($limits);
        $reader->walk($container, $progress);

        return $reader->finish($container);
    }

    private function walk(Container $container, ?callable $progress): void
    {
        $counts = [];
        $lists = [
            'nodes',
            'meshes',
            'accessors',
            'bufferViews',
            'buffers',
            'materials',
            'textures',
            'images',
            'samplers',
            'cameras',
            'scenes',
            'animations',
            'skins',
        ];
        $stream = new JsonStream($container->json, $this->limits, $container->lifted);
        $size = max(1, $container->json->size());
        $read = 0;
        foreach ($stream->members($lists) as [$member, $value]) {
            $index = $counts[$member] = ($counts[$member] ?? -1) + 1;
            if (isset(self::CALLED[$member])) {
                $this->schema->check($member, $value, self::CALLED[$member].$index);
            }
            match ($member) {
                'nodes' => $this->nodes->add(Entry::of($value, "node $index")),
                'meshes' => ($this->meshes[] = $this->readMesh($index, Entry::of($value, "mesh $index"))),
                'accessors' => ($this->accessors[] = Accessor::read(Entry::of($value, "accessor $index"))),
                'bufferViews' => ($this->views[] = $this->readView(Entry::of($value, "buffer view $index"))),
                'buffers' => ($this->buffers[] = $this->readBuffer(Entry::of($value, "buffer $index"))),
                'materials' => $this->materials->add(Entry::of($value, "material $index")),
                'textures' => ($this->textures[] = $this->readTexture(Entry::of($value, "texture $index"))),
                'images' => ($this->images[] = $this->readImage(Entry::of($value, "image $index"))),
                'samplers' => ($this->samplers[] = $this->readSampler(Entry::of($value, "sampler $index"))),
                'cameras' => ($this->cameras[] = Entry::of($value, "camera $index")),
                'scenes' => ($this->scenes[] = Entry::of($value, "scene $index")),
                'animations', 'skins' => $this->leaveOut($member === 'skins' ? 'skin' : 'animation'),
                default => $this->readSingle($member, $value),
            };
            if ($member === 'nodes' && ($index & 4095) === 0 && $index > $this->limits->objects) {
                throw UnreadableFile::tooMuch('too many nodes', $index, $this->limits->objects);
            }
            if ($progress !== null && (++$read & 1023) === 0) {
                $progress($counts['nodes'] ?? 0, min(1.0, $stream->position() / $size));
            }
        }
        if (! $this->versioned) {
            throw UnreadableFile::because('The file does not say which glTF version it has ("asset.version" is missing).');
        }
    }

    private function readSingle(string $member, mixed $value): void
    {
        if (in_array($member, ['asset', 'extensions'], true)) {
            $this->schema->check($member, $value, $member === 'asset' ? 'the asset' : '"extensions" of the file');
        }
        if ($member === 'scene') {
            $this->scene = Entry::of(['scene' => $value], 'the file')->index('scene');
        } elseif ($member === 'asset') {
            $this->readAsset(Entry::of($value, 'the asset'));
        } elseif ($member === 'extensionsRequired') {
            foreach (Entry::of(['list' => $value], 'the file')->texts('list') as $name) {
                if (! in_array($name, self::SUPPORTED, true) && ! in_array($name, self::APPEARANCE, true)) {
                    throw UnreadableFile::unsupportedExtension($name);
                }
            }
        } elseif ($member === 'extensionsUsed') {
            $this->used = Entry::of(['list' => $value], 'the file')->texts('list');
        } elseif ($member === 'extensions') {
            $this->lights =
                Entry::of(['extensions' => $value], 'the file')
                    ->extension('KHR_lights_punctual')
                    ?->entries('lights', 'light') ?? [];
        }
    }

    private function readAsset(Entry $asset): void
    {
        $version = $asset->text('version');
        // Later minor versions are to be read as far as they go, unless the file says that it needs them.
        $least = $asset->text('minVersion', '2.0');
        if (preg_match('~^2\.\d+$~D', $version) !== 1) {
            throw UnreadableFile::because(
                'The file is glTF version "'.mb_strimwidth($version, 0, 20, '…').'"; version 2.0 is supported.',
            );
        }
        if (preg_match('~^[012]\.0*$|^[01]\.\d+$~D', $least) !== 1) {
            throw UnreadableFile::because(
                'The file needs a reader of glTF version "'.mb_strimwidth($least, 0, 20, '…').'"; version 2.0 is supported.',
            );
        }
        $this->versioned = true;
    }

    private function readMesh(int $index, Entry $entry): MeshEntry
    {
        if ($index >= $this->limits->meshes) {
            throw UnreadableFile::tooMuch('too many meshes', $index + 1, $this->limits->meshes);
        }

        return MeshEntry::read($entry);
    }

    private function readView(Entry $entry): BufferView
    {
        $view = BufferView::read($entry);
        if ($view->mode === null) {
            return $view;
        }
        $unpacked = $view->stride * $view->count;
        if ($unpacked > $this->limits->viewBytes) {
            throw UnreadableFile::tooMuch("too many bytes in $entry->place", $unpacked, $this->limits->viewBytes);
        }
        $this->unpackedBytes += $unpacked;
        if ($this->unpackedBytes > $this->limits->unpackedBytes) {
            throw UnreadableFile::tooMuch('too many bytes in its compressed data', $this->unpackedBytes, $this->limits->unpackedBytes);
        }

        return $view;
    }

    /** @return array{uri: string|null, length: int} */
    private function readBuffer(Entry $entry): array
    {
        return ['uri' => $entry->has('uri') ? $entry->text('uri') : null, 'length' => $entry->required('byteLength')];
    }

    /** @return array{image: int|null, sampler: int|null, name: string} */
    private function readTexture(Entry $entry): array
    {
        return [
            'image' => $entry->extension('EXT_texture_webp')?->index('source') ?? $entry->index('source'),
            'sampler' => $entry->index('sampler'),
            'name' => $entry->text('name'),
        ];
    }

    /** @return array{uri: string|null, view: int|null, name: string} */
    private function readImage(Entry $entry): array
    {
        return [
            'uri' => $entry->has('uri') ? $entry->text('uri') : null,
            'view' => $entry->index('bufferView'),
            'name' => $entry->text('name'),
        ];
    }

    /** @return array<string, int> */
    private function readSampler(Entry $entry): array
    {
        $sampler = [];
        foreach (self::SAMPLER as $name => $known) {
            $value = $entry->index($name);
            if ($value !== null && in_array($value, $known, true)) {
                $sampler[$name] = $value;
            }
        }

        return $sampler;
    }

    private function leaveOut(string $what): void
    {
        $this->leftOut[$what] = ($this->leftOut[$what] ?? 0) + 1;
    }

    private function finish(Container $container): GltfIntake
    {
        $bytes = $lengths = [];
        foreach ($this->buffers as $index => $buffer) {
            $bytes[] = $buffer['uri'] === null && $index > 0 ? null : $container->resolve($buffer['uri']);
            $lengths[] = $buffer['length'];
        }
        $buffers = new Buffers($bytes, $lengths, $this->views, $this->accessors);
        $meshes = new MeshReader($buffers, $this->meshes, $this->materials->transforms, count($this->materials->all), $this->limits);
        $tree = new NodeTree($this->nodes, $meshes, $buffers, $this->cameras, $this->lights, $this->limits);
        $objects = $tree->objects($this->scenes, $this->scene);
        foreach ($meshes->leftOut() as $name) {
            $this->leaveOut($name);
        }
        $pictures = new Pictures($container, $buffers, $this->images, $this->limits);
        foreach ($this->images as $image) {
            if ($image['view'] === null && ($image['uri'] === null || ! $container->has($image['uri']))) {
                $this->leaveOut('picture');
            }
        }
        $textures = [];
        $sources = [];
        foreach ($this->textures as $index => $texture) {
            $image = $texture['image'];
            $named = array_filter([$texture['name'], $image === null ? '' : $this->images[$image]['name'] ?? '', "texture $index"]);
            $textures[] = new TakenTexture((string) reset($named), $this->samplers[$texture['sampler'] ?? -1] ?? []);
            $sources[] = $image;
        }

        return new GltfIntake(
            $container->format,
            $objects,
            $meshes,
            $this->materials->all,
            $textures,
            $sources,
            $pictures,
            $this->warnings($tree->warnings()),
        );
    }

    /**
     * @param list<string> $warnings
     *
     * @return list<string>
     */
    private function warnings(array $warnings): array
    {
        array_push($warnings, ...$this->schema->remarks());
        foreach ($this->leftOut + $this->materials->leftOut as $what => $count) {
            $warnings[] = "$count ".($count === 1 ? "$what was" : "{$what}s were").' left out'.(self::REASONS[$what] ?? '').'.';
        }
        foreach ($this->used as $name) {
            if (! in_array($name, self::SUPPORTED, true)) {
                $warnings[] = in_array($name, self::APPEARANCE, true)
                    ? "The extension \"$name\" refines surfaces and was left out."
                    : "The extension \"$name\" is not understood and was left out.";
            }
        }

        return $warnings;
    }
}
