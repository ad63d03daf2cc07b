<?php

declare(strict_types=1);

namespace VineShelf\Export;

use VineShelf\Geometry\GlbWriter;

/** Writes materials, and the pictures that they need, each once. */
final class MaterialWriter
{
    /** @var array<string, int|null> by number, and whether it is flat */
    private array $known = [];

    /** @var array<int, int|null> textures by picture */
    private array $textures = [];

    /** @var array<string, int> images by what they are */
    private array $images = [];

    /** @var array<string, int> */
    private array $samplers = [];

    public function __construct(private readonly GlbWriter $file, private readonly Surfaces $surfaces) {}

    /** @param bool $isFlat whether it goes without pictures @return int|null its index */
    public function index(int $number, bool $isFlat): ?int
    {
        $key = $number.($isFlat ? ' flat' : '');
        if (! array_key_exists($key, $this->known)) {
            $this->known[$key] = $this->write($number, $isFlat);
        }

        return $this->known[$key];
    }

    private function write(int $number, bool $isFlat): ?int
    {
        $surface = $number === 0 ? null : $this->surfaces->material($number);
        if ($surface === null) {
            return null;
        }
        $texture = $isFlat || $surface['texture'] === null ? null : $this->texture($surface['texture']);
        $normals = $isFlat || $surface['normalMap'] === null ? null : $this->texture($surface['normalMap']);
        $entry = [
            'name' => $surface['name'],
            'pbrMetallicRoughness' => array_filter(
                [
                    'baseColorFactor' => $surface['colour'],
                    'metallicFactor' => $surface['metallic'],
                    'roughnessFactor' => $surface['roughness'],
                    'baseColorTexture' => $texture === null ? null : ['index' => $texture],
                ],
                static fn (mixed $value): bool => $value !== null,
            ),
        ];
        if ($normals !== null) {
            $entry['normalTexture'] = ['index' => $normals, 'scale' => $surface['normalScale']];
        }
        if (max([0.0, ...$surface['emission']]) > 0.0) {
            $entry['emissiveFactor'] = $surface['emission'];
        }
        if ($surface['alpha'] !== 'OPAQUE') {
            $entry['alphaMode'] = $surface['alpha'];
        }
        if ($surface['alpha'] === 'MASK') {
            $entry['alphaCutoff'] = $surface['cutoff'];
        }
        if ($surface['doubleSided']) {
            $entry['doubleSided'] = true;
        }
        if ($surface['unlit']) {
            $this->file->uses('KHR_materials_unlit');
            $entry['extensions'] = ['KHR_materials_unlit' => new \stdClass];
        }

        return $this->file->add('materials', $entry);
    }

    private function texture(int $picture): ?int
    {
        if (! array_key_exists($picture, $this->textures)) {
            $this->textures[$picture] = $this->writeTexture($picture);
        }

        return $this->textures[$picture];
    }

    private function writeTexture(int $picture): ?int
    {
        [$type, $bytes, $sampler] = $this->surfaces->picture($picture) ?? ['', '', []];
        if ($bytes === '') {
            return null;
        }
        // Several textures may show one picture, each in its own way.
        $image = $this->images[hash('xxh128', $bytes)] ??= $this->file->add('images', [
            'bufferView' => $this->file->view($bytes),
            'mimeType' => $type,
        ]);
        $more = [];
        if ($sampler !== []) {
            ksort($sampler);
            $more['sampler'] = $this->samplers[serialize($sampler)] ??= $this->file->add('samplers', $sampler);
        }
        if ($type !== 'image/webp') {
            return $this->file->add('textures', $more + ['source' => $image]);
        }
        $this->file->uses('EXT_texture_webp', required: true);

        return $this->file->add('textures', $more + ['extensions' => ['EXT_texture_webp' => ['source' => $image]]]);
    }
}
