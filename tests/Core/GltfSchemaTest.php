<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use Tests\Core\Support\Node;
use VineShelf\Formats\Files;
use VineShelf\Formats\Gltf\Schema;
use VineShelf\Formats\UnreadableFile;

/** What is of the wrong type in a file is what the public validator says it is. */
final class GltfSchemaTest extends TestCase
{
    /** Values of every type that JSON has. */
    private const VALUES = [
        '"text"',
        '7',
        '-1',
        '1.5',
        'true',
        '[]',
        '[1]',
        '["text"]',
        '[[1]]',
        '{"a":1}',
        '{"a":"text"}',
        '[{}]',
        '[1.5,2]',
    ];

    private const ALL = [
        'asset' => ['version' => '2.0', 'generator' => 'x', 'copyright' => 'x', 'minVersion' => '2.0'],
        'scene' => 0,
        'scenes' => [['nodes' => [0], 'name' => 'x']],
        'nodes' => [
            ['mesh' => 0, 'children' => [1], 'translation' => [1, 2, 3], 'rotation' => [0, 0, 0, 1], 'scale' => [1, 1, 1], 'name' => 'x'],
            ['camera' => 0, 'matrix' => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]],
            ['extensions' => ['KHR_lights_punctual' => ['light' => 0]]],
        ],
        'meshes' => [['primitives' => [['attributes' => ['POSITION' => 0], 'indices' => 1, 'material' => 0, 'mode' => 4]], 'name' => 'x']],
        'accessors' => [
            [
                'bufferView' => 0,
                'byteOffset' => 0,
                'componentType' => 5126,
                'normalized' => false,
                'count' => 3,
                'type' => 'VEC3',
                'min' => [0, 0, 0],
                'max' => [1, 1, 1],
                'name' => 'x',
            ],
            [
                'componentType' => 5123,
                'count' => 3,
                'type' => 'SCALAR',
                'sparse' => [
                    'count' => 1,
                    'indices' => ['bufferView' => 0, 'byteOffset' => 0, 'componentType' => 5121],
                    'values' => ['bufferView' => 0, 'byteOffset' => 4],
                ],
            ],
        ],
        'bufferViews' => [['buffer' => 0, 'byteOffset' => 0, 'byteLength' => 36, 'byteStride' => 12, 'target' => 34962, 'name' => 'x']],
        'buffers' => [['uri' => 'data:application/octet-stream;base64,AAAA', 'byteLength' => 36, 'name' => 'x']],
        'cameras' => [
            ['type' => 'perspective', 'perspective' => ['yfov' => 0.5, 'znear' => 0.1, 'zfar' => 9, 'aspectRatio' => 1.5], 'name' => 'x'],
            ['type' => 'orthographic', 'orthographic' => ['xmag' => 1, 'ymag' => 1, 'znear' => 0.1, 'zfar' => 9]],
        ],
        'images' => [['uri' => 'a.png', 'name' => 'x'], ['bufferView' => 0, 'mimeType' => 'image/png']],
        'samplers' => [['magFilter' => 9728, 'minFilter' => 9728, 'wrapS' => 10497, 'wrapT' => 10497, 'name' => 'x']],
        'textures' => [['sampler' => 0, 'source' => 0, 'name' => 'x']],
        'materials' => [
            [
                'name' => 'x',
                'pbrMetallicRoughness' => [
                    'baseColorFactor' => [1, 1, 1, 1],
                    'metallicFactor' => 1,
                    'roughnessFactor' => 0.5,
                    'baseColorTexture' => [
                        'index' => 0,
                        'texCoord' => 0,
                        'extensions' => [
                            'KHR_texture_transform' => ['offset' => [0, 0], 'rotation' => 0.5, 'scale' => [1, 1], 'texCoord' => 0],
                        ],
                    ],
                    'metallicRoughnessTexture' => ['index' => 0, 'texCoord' => 0],
                ],
                'normalTexture' => ['index' => 0, 'texCoord' => 0, 'scale' => 0.5],
                'occlusionTexture' => ['index' => 0, 'texCoord' => 0, 'strength' => 0.5],
                'emissiveTexture' => ['index' => 0, 'texCoord' => 0],
                'emissiveFactor' => [0, 0, 0],
                'alphaMode' => 'MASK',
                'alphaCutoff' => 0.5,
                'doubleSided' => true,
                'extensions' => ['KHR_materials_emissive_strength' => ['emissiveStrength' => 2]],
            ],
            [
                'extensions' => [
                    'KHR_materials_pbrSpecularGlossiness' => [
                        'diffuseFactor' => [1, 1, 1, 1],
                        'diffuseTexture' => ['index' => 0],
                        'specularFactor' => [1, 1, 1],
                        'glossinessFactor' => 0.5,
                        'specularGlossinessTexture' => ['index' => 0],
                    ],
                ],
            ],
        ],
        'extensions' => [
            'KHR_lights_punctual' => [
                'lights' => [
                    [
                        'name' => 'x',
                        'color' => [1, 1, 1],
                        'intensity' => 2,
                        'type' => 'spot',
                        'range' => 9,
                        'spot' => ['innerConeAngle' => 0.1, 'outerConeAngle' => 0.5],
                    ],
                ],
            ],
        ],
        'extensionsUsed' => [
            'KHR_texture_transform',
            'KHR_lights_punctual',
            'KHR_materials_emissive_strength',
            'KHR_materials_pbrSpecularGlossiness',
        ],
    ];

    public function test_each_member_with_each_type_is_judged_as_the_public_validator_judges_it(): void
    {
        $documents = $tried = [];
        foreach (self::paths(self::ALL) as $path) {
            if (in_array($path[0], ['extensionsUsed', 'scene'], true) || count($path) < 2) {
                continue;
            }
            foreach (self::VALUES as $value) {
                $document = self::with(self::ALL, $path, json_decode($value));
                $documents[] = (string) json_encode($document, JSON_PRESERVE_ZERO_FRACTION);
                $tried[] = [implode('/', $path), $value, end($documents)];
            }
        }
        $found = Node::run('types.mjs', Gltf::keep((string) json_encode($documents), '.json'));
        $agree = $wrong = $unsaid = 0;
        $differs = [];
        foreach ($tried as $at => [$path, $value, $document]) {
            if ($found[$at] === null) {
                $unsaid++;

                continue;
            }
            $theirs = $found[$at] !== [];
            $said = self::judged($document);
            // Names that are numbers are taken, and named.
            $isNamed = str_ends_with($path, '/name') && in_array($value, ['7', '-1', '1.5'], true);
            if ($isNamed) {
                self::assertStringContainsString('taken as', $said);
            } elseif ($theirs) {
                // An empty list says no more than an empty object; what extensions that are not read hold is nobody's business.
                $isIdle = $value === '[]' || (str_ends_with($path, '/extensions') && str_starts_with($value, '{'));
                $said === '' && ! $isIdle && ($differs[] = "$path: $value is wrong");
                $wrong++;
            } elseif ($said !== '') {
                // Of lists of another length, and of numbers below 0, the validator says only that.
                $isOther = $value === '-1' || (str_ends_with($said, 'a list of numbers.') && ! in_array($value, ['[1]', '[1.5,2]'], true));
                $isOther || ($differs[] = "$path: $value is right; $said");
            }
            $agree++;
        }
        self::assertSame([], $differs);
        self::assertGreaterThan(900, $agree);
        self::assertGreaterThan(500, $wrong);
        self::assertLessThan(30, $unsaid);
    }

    public function test_a_file_with_a_list_for_a_material_is_refused_with_its_place_and_nulls_are_named(): void
    {
        $document = ['asset' => ['version' => '2.0'], 'materials' => [['name' => 'Tiles', 'pbrMetallicRoughness' => [[1, 2]]]]];
        try {
            Files::open(Gltf::keep((string) json_encode($document), '.gltf'));
            self::fail('It was taken.');
        } catch (UnreadableFile $reason) {
            self::assertStringContainsString('"pbrMetallicRoughness" of material 0 is not an object', $reason->getMessage());
        }
        $document = ['asset' => ['version' => '2.0'], 'nodes' => [['name' => 5, 'mesh' => null, 'camera' => null], ['name' => null]]];
        $warnings = implode(' ', Files::open(Gltf::keep((string) json_encode($document), '.gltf'))->warnings());
        self::assertStringContainsString('3 members are null', $warnings);
        self::assertStringContainsString('1 name is a number; taken as a text.', $warnings);
    }

    /** What is said of a document: what is refused, or what is named; "" for nothing. */
    private static function judged(string $document): string
    {
        $schema = new Schema;
        $decoded = json_decode($document, true);
        try {
            foreach (is_array($decoded) ? $decoded : [] as $member => $value) {
                if ($member === 'asset' || $member === 'extensions') {
                    $schema->check($member, $value, "the $member");
                } elseif (is_array($value) && $member !== 'extensionsUsed') {
                    foreach ($value as $index => $entry) {
                        $schema->check($member, $entry, "$member $index");
                    }
                }
            }
        } catch (UnreadableFile $reason) {
            return $reason->getMessage();
        }

        return implode(' ', $schema->remarks());
    }

    /**
     * @param array<mixed> $in
     *
     * @return \Generator<list<int|string>> of members of objects at any depth; of lists, only what stands in them
     */
    private static function paths(array $in): \Generator
    {
        foreach ($in as $key => $value) {
            if (is_string($key)) {
                yield [$key];
            }
            if (is_array($value) && (! array_is_list($value) || is_array($value[0] ?? null))) {
                foreach (self::paths($value) as $path) {
                    yield [$key, ...$path];
                }
            }
        }
    }

    /**
     * @param array<mixed>     $in
     * @param list<int|string> $path
     *
     * @return array<mixed>
     */
    private static function with(array $in, array $path, mixed $value): array
    {
        $key = $path[0];
        $below = $in[$key] ?? [];
        $in[$key] = count($path) === 1 ? $value : self::with(is_array($below) ? $below : [], array_slice($path, 1), $value);

        return $in;
    }
}
