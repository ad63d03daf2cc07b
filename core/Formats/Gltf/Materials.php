<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\TakenMaterial;

/** The materials of a file as they are read: what is drawn of them, where their pictures lie on a part, and what is left out. */
final class Materials
{
    /** What a material may have that is not drawn, and what it is called. */
    private const LEFT_OUT = [
        'occlusionTexture' => 'occlusion map',
        'emissiveTexture' => 'emission map',
        'metallicRoughnessTexture' => 'roughness map',
        'specularGlossinessTexture' => 'gloss map',
    ];

    /** @var list<TakenMaterial> */
    public array $all = [];

    /** @var list<array{offset: array{float, float}, turn: float, scale: array{float, float}, set: int}|null> of pictures, by material */
    public array $transforms = [];

    /** @var array<string, int> how often, by what it is called */
    public array $leftOut = [];

    public function add(Entry $entry): void
    {
        $glossy = $entry->extension('KHR_materials_pbrSpecularGlossiness');
        $rough = $entry->entry('pbrMetallicRoughness');
        $surface = $glossy ?? $rough;
        foreach (self::LEFT_OUT as $member => $what) {
            if ($entry->has($member) || ($surface !== null && $surface->has($member))) {
                $this->leftOut[$what] = ($this->leftOut[$what] ?? 0) + 1;
            }
        }
        $map = $surface?->entry($glossy !== null ? 'diffuseTexture' : 'baseColorTexture');
        $normals = $entry->entry('normalTexture');
        $place = $map === null ? null : self::transform($map);
        if ($normals !== null && $place !== null && self::transform($normals) !== $place) {
            // A vertex keeps one place on pictures.
            $this->leftOut['normal map'] = ($this->leftOut['normal map'] ?? 0) + 1;
            $normals = null;
        }
        $colour = $surface?->numbers($glossy !== null ? 'diffuseFactor' : 'baseColorFactor', [1.0, 1.0, 1.0, 1.0]) ?? [1.0, 1.0, 1.0, 1.0];
        $this->all[] = new TakenMaterial(
            $entry->text('name'),
            [$colour[0] ?? 1.0, $colour[1] ?? 1.0, $colour[2] ?? 1.0, $colour[3] ?? 1.0],
            $map?->required('index'),
            $glossy !== null ? 0.0 : $rough?->number('metallicFactor', 1.0) ?? 1.0,
            $glossy !== null ? 1.0 - $glossy->number('glossinessFactor', 1.0) : $rough?->number('roughnessFactor', 1.0) ?? 1.0,
            $entry->text('alphaMode', 'OPAQUE'),
            $entry->number('alphaCutoff', 0.5),
            $entry->flag('doubleSided'),
            $entry->extension('KHR_materials_unlit') !== null,
            self::emission($entry),
            $normals?->required('index'),
            $normals?->number('scale', 1.0) ?? 1.0,
        );
        $this->transforms[] = $place ?? ($normals === null ? null : self::transform($normals));
    }

    /** @return array{float, float, float} none where a map says where it glows, which is left out */
    private static function emission(Entry $entry): array
    {
        if ($entry->has('emissiveTexture')) {
            return [0.0, 0.0, 0.0];
        }
        $strength = $entry->extension('KHR_materials_emissive_strength')?->number('emissiveStrength', 1.0) ?? 1.0;
        $light = $entry->numbers('emissiveFactor', [0.0, 0.0, 0.0]);
        $glow = static fn (int $channel): float => max(0.0, min(1.0, ($light[$channel] ?? 0.0) * $strength));

        return [$glow(0), $glow(1), $glow(2)];
    }

    /** @return array{offset: array{float, float}, turn: float, scale: array{float, float}, set: int} */
    private static function transform(Entry $map): array
    {
        $turned = $map->extension('KHR_texture_transform');
        $offset = $turned?->numbers('offset', [0.0, 0.0]) ?? [0.0, 0.0];
        $scale = $turned?->numbers('scale', [1.0, 1.0]) ?? [1.0, 1.0];

        return [
            'offset' => [$offset[0] ?? 0.0, $offset[1] ?? 0.0],
            'turn' => $turned?->number('rotation', 0.0) ?? 0.0,
            'scale' => [$scale[0] ?? 1.0, $scale[1] ?? 1.0],
            'set' => $turned?->index('texCoord') ?? $map->whole('texCoord', 0),
        ];
    }
}
