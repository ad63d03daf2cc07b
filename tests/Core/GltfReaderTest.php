<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use VineShelf\Formats\Gltf\GltfReader;
use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;
use VineShelf\Scene\Kind;

final class GltfReaderTest extends TestCase
{
    public function test_a_triangle_is_counted_and_turned_to_z_up(): void
    {
        $found = Gltf::inspect(Gltf::triangle());

        self::assertSame(
            ['gltf', 1, 0, 1, 1, 1, 3],
            [
                $found['format'],
                $found['objects'],
                $found['groups'],
                $found['parts'],
                $found['meshes'],
                $found['triangles'],
                $found['vertices'],
            ],
        );
        self::assertEquals(['min' => [0, 0, 0], 'max' => [1, 0, 2]], $found['bounds']);
        self::assertSame([], $found['warnings']);
    }

    public function test_transforms_multiply_down_the_nesting_and_bounds_are_exact_when_turned(): void
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'] = [
            ['name' => 'Group', 'children' => [1], 'translation' => [10, 0, 0], 'scale' => [2, 2, 2]],
            ['mesh' => 0, 'rotation' => [0, 0, sin(M_PI / 8), cos(M_PI / 8)]],
        ];
        $found = Gltf::inspect($gltf);
        // Turned by 45 degrees about z: (1, 0) goes to (r, r), (0, 2) to (-2r, 2r); doubled and moved by 10. The box around the turned box
        // would reach 3r.
        $r = sqrt(0.5);

        self::assertSame([2, 1, 1], [$found['objects'], $found['groups'], $found['parts']]);
        self::assertEqualsWithDelta(['min' => [10 - 4 * $r, 0, 0], 'max' => [10 + 2 * $r, 0, 4 * $r]], $found['bounds'], 1e-6);
    }

    public function test_a_matrix_is_read_column_by_column(): void
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'][0]['matrix'] = [0, 1, 0, 0, -1, 0, 0, 0, 0, 0, 1, 0, 5, 6, 7, 1];
        // (1, 0, 0) goes to (5, 7, 7) and (0, 2, 0) to (3, 6, 7); then y up becomes z up.
        self::assertEqualsWithDelta(['min' => [3, -7, 6], 'max' => [5, -7, 7]], Gltf::inspect($gltf)['bounds'], 1e-6);
    }

    /** @return iterable<string, array{int, int, int, Kind}> mode, indices, triangles, kind */
    public static function modes(): iterable
    {
        yield 'points' => [0, 5, 0, Kind::Points];
        yield 'lines' => [1, 4, 0, Kind::Curve];
        yield 'line loop' => [2, 5, 0, Kind::Curve];
        yield 'line strip' => [3, 5, 0, Kind::Curve];
        yield 'triangles' => [4, 6, 2, Kind::Part];
        yield 'triangle strip' => [5, 5, 3, Kind::Part];
        yield 'triangle fan' => [6, 5, 3, Kind::Part];
    }

    #[DataProvider('modes')]
    public function test_every_mode_is_drawn_as_a_plain_list(int $mode, int $count, int $triangles, Kind $kind): void
    {
        $gltf = Gltf::triangle();
        $bytes = pack('g*', ...range(1, 18)).pack('C*', ...array_slice([0, 1, 2, 3, 4, 5], 0, $count));
        $gltf['buffers'] = [['byteLength' => strlen($bytes), 'uri' => Gltf::embedded($bytes)]];
        $gltf['bufferViews'] = [['buffer' => 0, 'byteLength' => 72], ['buffer' => 0, 'byteOffset' => 72, 'byteLength' => $count]];
        $gltf['accessors'] = [
            ['bufferView' => 0, 'componentType' => 5126, 'count' => 6, 'type' => 'VEC3'],
            ['bufferView' => 1, 'componentType' => 5121, 'count' => $count, 'type' => 'SCALAR'],
        ];
        $gltf['meshes'][0]['primitives'][0]['mode'] = $mode;
        $intake = GltfReader::read(Gltf::file($gltf));
        $piece = $intake->primitives(0)[0];

        self::assertSame($triangles, $intake->meshes()[0]->triangles);
        self::assertSame($triangles, $piece->triangles());
        self::assertSame($kind->value, $intake->objects()->kinds[1]);
        $expected = [
            0 => [0, 1, 2, 3, 4],
            1 => [0, 1, 2, 3],
            2 => [0, 1, 1, 2, 2, 3, 3, 4, 4, 0],
            3 => [0, 1, 1, 2, 2, 3, 3, 4],
            4 => [0, 1, 2, 3, 4, 5],
            5 => [0, 1, 2, 1, 3, 2, 2, 3, 4],
            6 => [0, 1, 2, 0, 2, 3, 0, 3, 4],
        ][$mode];
        self::assertSame($expected, array_values((array) unpack('V*', $piece->indices)));
    }

    public function test_without_indices_every_vertex_counts(): void
    {
        $gltf = Gltf::triangle();
        unset($gltf['meshes'][0]['primitives'][0]['indices']);
        $found = Gltf::inspect($gltf);

        self::assertSame([1, 3], [$found['triangles'], $found['vertices']]);
    }

    public function test_strided_and_normalized_positions_are_read_as_quantization_asks(): void
    {
        $bytes = '';
        foreach ([[-32767, 0, 32767], [16384, 0, 0], [0, 32767, 0]] as $vertex) {
            $bytes .= pack('s*', ...$vertex).'xx';
        }
        $gltf = self::bare(
            $bytes,
            [['buffer' => 0, 'byteLength' => strlen($bytes), 'byteStride' => 8]],
            [['bufferView' => 0, 'componentType' => 5122, 'normalized' => true, 'count' => 3, 'type' => 'VEC3']],
        );
        $gltf['extensionsRequired'] = $gltf['extensionsUsed'] = ['KHR_mesh_quantization'];

        self::assertEqualsWithDelta([-1, 0, 1, 16384 / 32767, 0, 0, 0, 1, 0], Gltf::positions(Gltf::file($gltf)), 1e-6);
    }

    public function test_sparse_values_replace_those_below_them(): void
    {
        $bytes = pack('g*', ...array_fill(0, 9, 1.0)).pack('v*', 0, 2).pack('g*', 7, 8, 9, 4, 5, 6);
        $gltf = self::bare(
            $bytes,
            [
                ['buffer' => 0, 'byteLength' => 36],
                ['buffer' => 0, 'byteOffset' => 36, 'byteLength' => 4],
                ['buffer' => 0, 'byteOffset' => 40, 'byteLength' => 24],
            ],
            [
                [
                    'bufferView' => 0,
                    'componentType' => 5126,
                    'count' => 3,
                    'type' => 'VEC3',
                    'sparse' => ['count' => 2, 'indices' => ['bufferView' => 1, 'componentType' => 5123], 'values' => ['bufferView' => 2]],
                ],
            ],
        );
        self::assertSame([7.0, 8.0, 9.0, 1.0, 1.0, 1.0, 4.0, 5.0, 6.0], Gltf::positions(Gltf::file($gltf)));

        unset($gltf['accessors'][0]['bufferView']);
        self::assertSame([7.0, 8.0, 9.0, 0.0, 0.0, 0.0, 4.0, 5.0, 6.0], Gltf::positions(Gltf::file($gltf)));
    }

    public function test_gpu_instancing_draws_one_object_many_times(): void
    {
        $gltf = Gltf::triangle();
        $bytes = (string) base64_decode(substr($gltf['buffers'][0]['uri'], 37), true).pack('g*', 0, 0, 0, 10, 0, 0, 0, 0, 4);
        $gltf['buffers'] = [['byteLength' => strlen($bytes), 'uri' => Gltf::embedded($bytes)]];
        $gltf['bufferViews'][] = ['buffer' => 0, 'byteOffset' => 44, 'byteLength' => 36];
        $gltf['accessors'][] = ['bufferView' => 2, 'componentType' => 5126, 'count' => 3, 'type' => 'VEC3'];
        $gltf['nodes'][0]['extensions'] = ['EXT_mesh_gpu_instancing' => ['attributes' => ['TRANSLATION' => 2]]];
        $gltf['extensionsRequired'] = ['EXT_mesh_gpu_instancing'];
        $found = Gltf::inspect($gltf);

        self::assertSame([1, 3, 9, 1], [$found['objects'], $found['triangles'], $found['vertices'], $found['meshes']]);
        self::assertEqualsWithDelta(['min' => [0, -4, 0], 'max' => [11, 0, 2]], $found['bounds'], 1e-6);
    }

    public function test_lights_cameras_markers_and_properties_are_kept(): void
    {
        $gltf = Gltf::triangle();
        $gltf['extensionsUsed'] = ['KHR_lights_punctual'];
        $gltf['extensions'] = ['KHR_lights_punctual' => ['lights' => [['type' => 'point', 'intensity' => 40]]]];
        $gltf['cameras'] = [['type' => 'perspective', 'perspective' => ['yfov' => 0.7, 'znear' => 0.1]]];
        $gltf['nodes'][] = ['name' => 'Lamp', 'extensions' => ['KHR_lights_punctual' => ['light' => 0]]];
        $gltf['nodes'][] = ['name' => 'Eye', 'camera' => 0, 'extras' => ['layer' => 'Views']];
        $gltf['nodes'][] = ['name' => 'Nothing'];
        $gltf['scenes'][0]['nodes'] = [0, 1, 2, 3];
        $intake = GltfReader::read(Gltf::file($gltf));

        self::assertSame(
            array_map(static fn (Kind $kind): int => $kind->value, [Kind::Part, Kind::Light, Kind::Camera, Kind::Marker]),
            array_slice($intake->objects()->kinds, 1),
        );
        self::assertSame(
            ['light' => ['type' => 'point', 'colour' => [1, 1, 1], 'intensity' => 40]],
            json_decode($intake->objects()->properties[2], true),
        );
        self::assertSame(
            ['layer' => 'Views', 'camera' => ['type' => 'perspective', 'yfov' => 0.7, 'znear' => 0.1]],
            json_decode($intake->objects()->properties[3], true),
        );
        self::assertSame(['1 node holds nothing at all; taken as a marker.'], $intake->warnings());
    }

    public function test_the_scene_that_opens_is_the_one_the_file_names_and_the_rest_is_told(): void
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'] = [['mesh' => 0], ['children' => [2]], ['mesh' => 0]];
        $gltf['scenes'] = [['nodes' => [0]], ['nodes' => [1]]];
        $gltf['scene'] = 1;
        $found = Gltf::inspect($gltf);

        self::assertSame([2, 1], [$found['objects'], $found['groups']]);
        self::assertSame(['1 node stands in no scene that opens, and was left out.'], $found['warnings']);
        unset($gltf['scene'], $gltf['scenes']);
        self::assertSame(3, Gltf::inspect($gltf)['objects']);
    }

    public function test_a_texture_transform_is_worked_into_the_coordinates(): void
    {
        $bytes = pack('g*', 0, 0, 0, 1, 0, 0, 0, 2, 0).pack('g*', 0, 0, 1, 0, 0, 1);
        $gltf = self::bare(
            $bytes,
            [['buffer' => 0, 'byteLength' => 36], ['buffer' => 0, 'byteOffset' => 36, 'byteLength' => 24]],
            [
                ['bufferView' => 0, 'componentType' => 5126, 'count' => 3, 'type' => 'VEC3'],
                ['bufferView' => 1, 'componentType' => 5126, 'count' => 3, 'type' => 'VEC2'],
            ],
        );
        $gltf['meshes'][0]['primitives'][0] = ['attributes' => ['POSITION' => 0, 'TEXCOORD_1' => 1], 'material' => 0];
        $gltf['materials'] = [
            [
                'pbrMetallicRoughness' => [
                    'baseColorTexture' => [
                        'index' => 0,
                        'extensions' => [
                            'KHR_texture_transform' => ['offset' => [0.5, 0], 'rotation' => M_PI / 2, 'scale' => [2, 3], 'texCoord' => 1],
                        ],
                    ],
                ],
            ],
        ];
        $gltf['textures'] = [['source' => 0]];
        $gltf['images'] = [['uri' => 'data:image/png;base64,'.base64_encode("\x89PNG\r\n\x1a\n")]];
        $intake = GltfReader::read(Gltf::file($gltf));

        self::assertEqualsWithDelta(
            [0.5, 0, 0.5, -2, 3.5, 0],
            array_values((array) unpack('g*', (string) $intake->primitives(0)[0]->uvs)),
            1e-6,
        );
        self::assertSame("\x89PNG\r\n\x1a\n", $intake->picture(0));
    }

    public function test_what_is_left_out_is_named_and_counted(): void
    {
        $gltf = Gltf::triangle();
        $gltf['animations'] = [['channels' => [], 'samplers' => []], ['channels' => [], 'samplers' => []]];
        $gltf['skins'] = [['joints' => [0]]];
        $gltf['extensionsUsed'] = ['KHR_materials_sheen', 'MARLPIT_tide'];

        self::assertSame(
            [
                '2 animations were left out: the scene is taken as it stands at rest.',
                '1 skin was left out: skinned meshes stand as they were modelled.',
                'The extension "KHR_materials_sheen" refines surfaces and was left out.',
                'The extension "MARLPIT_tide" is not understood and was left out.',
            ],
            Gltf::inspect($gltf)['warnings'],
        );
    }

    public function test_a_zip_of_a_gltf_with_its_parts_opens(): void
    {
        $gltf = Gltf::triangle();
        $bytes = (string) base64_decode(substr($gltf['buffers'][0]['uri'], 37), true);
        $gltf['buffers'][0]['uri'] = 'parts/pool%20hall.bin';
        $path = self::zip(['model/hall.gltf' => (string) json_encode($gltf), 'model/parts/pool hall.bin' => $bytes]);

        self::assertSame(['gltf zip', 1], [Gltf::inspect($path)['format'], Gltf::inspect($path)['triangles']]);
    }

    public function test_the_json_is_read_in_windows_whatever_stands_on_their_edges(): void
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'][0]['extras'] = ['note' => str_repeat('{"[\\', 70_000), 'emoji' => '🏊'];
        for ($node = 1; $node < 6000; $node++) {
            $gltf['nodes'][] = ['name' => str_repeat('x', $node % 700).'}"]', 'extras' => ['n' => $node]];
            $gltf['scenes'][0]['nodes'][] = $node;
        }
        $intake = GltfReader::read(Gltf::keep((string) json_encode($gltf, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE)));

        self::assertSame(6000, $intake->objects()->count());
        self::assertSame(str_repeat('x', 5999 % 700).'}"]', $intake->objects()->names[6000]);
        self::assertSame($gltf['nodes'][0]['extras'], json_decode($intake->objects()->properties[1], true));
    }

    public function test_limits_are_kept_and_named(): void
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'][] = ['name' => 'More'];
        $gltf['scenes'][0]['nodes'] = [0, 1];
        $this->expectExceptionMessage('The file has too many objects: 2, and the limit is 1.');
        Gltf::inspect($gltf, new Limits(objects: 1));
    }

    /**
     * @param list<array<string, mixed>> $views
     * @param list<array<string, mixed>> $accessors
     *
     * @return array<string, mixed>
     */
    public static function bare(string $bytes, array $views, array $accessors): array
    {
        return [
            'asset' => ['version' => '2.0'],
            'scenes' => [['nodes' => [0]]],
            'nodes' => [['mesh' => 0]],
            'meshes' => [['primitives' => [['attributes' => ['POSITION' => 0]]]]],
            'accessors' => $accessors,
            'bufferViews' => $views,
            'buffers' => [['byteLength' => strlen($bytes), 'uri' => Gltf::embedded($bytes)]],
        ];
    }

    /** @param array<string, string> $files */
    public static function zip(array $files): string
    {
        $path = Gltf::keep('');
        $zip = new \ZipArchive;
        $zip->open($path, \ZipArchive::OVERWRITE);
        foreach ($files as $name => $bytes) {
            $zip->addFromString($name, $bytes);
        }
        $zip->close();

        return $path;
    }

    public function test_embedded_data_may_be_large_and_lie_anywhere(): void
    {
        // 26 MB of vertices in one buffer, some more in another, a picture, and names that look like data.
        $points = 2_200_000;
        $many = str_repeat(pack('g*', 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12), intdiv($points, 4));
        $few = pack('g*', ...array_map(static fn (int $at): float => $at / 7, range(1, 3 * 9000)));
        $picture = "\x89PNG\r\n\x1a\n".random_bytes(90_000);
        $gltf = [
            'asset' => ['version' => '2.0'],
            'buffers' => [
                ['byteLength' => strlen($many), 'uri' => Gltf::embedded($many)],
                ['byteLength' => strlen($few), 'uri' => Gltf::embedded($few)],
                ['byteLength' => 3, 'uri' => Gltf::embedded('abc')],
            ],
            'images' => [['uri' => 'data:image/png;base64,'.base64_encode($picture)]],
            'textures' => [['source' => 0]],
            'nodes' => [['mesh' => 0, 'name' => '"data:'], ['mesh' => 1, 'name' => 'data:,'.str_repeat('é', 70)]],
            'meshes' => [
                ['primitives' => [['attributes' => ['POSITION' => 0], 'mode' => 0]]],
                ['primitives' => [['attributes' => ['POSITION' => 1], 'mode' => 0]]],
            ],
            'accessors' => [
                ['bufferView' => 0, 'componentType' => 5126, 'count' => $points, 'type' => 'VEC3'],
                ['bufferView' => 1, 'componentType' => 5126, 'count' => 9000, 'type' => 'VEC3'],
            ],
            'bufferViews' => [['buffer' => 0, 'byteLength' => strlen($many)], ['buffer' => 1, 'byteLength' => strlen($few)]],
        ];
        foreach ([0, JSON_UNESCAPED_SLASHES, JSON_PRETTY_PRINT] as $how) {
            // Moved about in the file, so that it is cut at other places.
            $gltf['asset']['generator'] = str_repeat('x', 1_048_500 + 40 * $how);
            $intake = GltfReader::read(Gltf::keep((string) json_encode($gltf, $how | JSON_THROW_ON_ERROR)));
            self::assertSame(md5($many), md5($intake->primitives(0)[0]->positions));
            self::assertSame(md5($few), md5($intake->primitives(1)[0]->positions));
            self::assertSame($picture, $intake->picture(0));
            self::assertSame(['"data:', 'data:,'.str_repeat('é', 70)], array_slice($intake->objects()->names, 1));
            self::assertSame([], $intake->warnings());
        }
    }

    public function test_embedded_data_that_is_large_and_wrong_is_said_to_be(): void
    {
        foreach (
            [
                'data:application/octet-stream;base64,'.str_repeat('%', 70_000) => 'not valid base64',
                'data:'.str_repeat('A', 70_000) => 'has no data behind its "data:"',
                'data:,'.str_repeat('A', 70_000) => 'is not in base64',
            ] as $uri => $said
        ) {
            $gltf = ['buffers' => [['byteLength' => 42, 'uri' => $uri]]] + Gltf::triangle();
            try {
                GltfReader::read(Gltf::file($gltf))->primitives(0);
                self::fail("Nothing was said: $said");
            } catch (UnreadableFile $error) {
                self::assertStringContainsString($said, $error->getMessage());
            }
        }
        // A text that never ends.
        $this->expectException(UnreadableFile::class);
        GltfReader::read(
            Gltf::keep('{"asset":{"version":"2.0"},"buffers":[{"byteLength":4,"uri":"data:;base64,'.str_repeat('A', 3_000_000)),
        );
    }

    public function test_whole_numbers_may_be_written_with_a_point(): void
    {
        $gltf = Gltf::triangle();
        $json = (string) json_encode($gltf);
        $pointed = (string) preg_replace('~(?<=[:\[,])(\d+)(?=[,\]}])~', '$1.0', $json);
        self::assertStringContainsString('"nodes":[0.0]', $pointed);
        $intake = GltfReader::read(Gltf::keep($pointed));
        self::assertSame(['', 'Pane'], $intake->objects()->names);
        self::assertSame(1, $intake->meshes()[0]->triangles);
    }

    #[TestWith(['2.0', null, true])]
    #[TestWith(['2.1', null, true])]
    #[TestWith(['2.1', '2.0', true])]
    #[TestWith(['2.1', '2.1', false])]
    #[TestWith(['2.0', '2.1', false])]
    #[TestWith(['2.0', '1.0', true])]
    #[TestWith(['3.0', null, false])]
    #[TestWith(['1.0', null, false])]
    public function test_a_later_minor_version_is_read_unless_the_file_needs_it(string $version, ?string $least, bool $isRead): void
    {
        $gltf = ['asset' => array_filter(['version' => $version, 'minVersion' => $least])] + Gltf::triangle();
        if (! $isRead) {
            $this->expectExceptionMessage('version 2.0 is supported');
        }
        self::assertSame(1, GltfReader::read(Gltf::file($gltf))->objects()->count());
    }

    public function test_what_is_left_out_is_named(): void
    {
        $gltf = Gltf::triangle();
        $gltf['meshes'][0]['primitives'][] = ['attributes' => ['NORMAL' => 0]];
        $gltf['images'] = [['uri' => 'https://marlpit.example/x.png'], ['uri' => 'beside.png']];
        $gltf['materials'] = [
            ['normalTexture' => ['index' => 0, 'scale' => 0.5], 'emissiveTexture' => ['index' => 0], 'emissiveFactor' => [1, 1, 1]],
            [
                'normalTexture' => ['index' => 0, 'texCoord' => 1],
                'pbrMetallicRoughness' => ['baseColorTexture' => ['index' => 0], 'metallicRoughnessTexture' => ['index' => 0]],
            ],
            [
                'emissiveFactor' => [0.5, 0, 0.25],
                'extensions' => ['KHR_materials_unlit' => [], 'KHR_materials_emissive_strength' => ['emissiveStrength' => 3]],
            ],
        ];
        $gltf['extensionsUsed'] = ['KHR_materials_unlit', 'KHR_materials_emissive_strength'];
        $intake = GltfReader::read(Gltf::file($gltf));
        self::assertSame(
            [
                '1 mesh piece was left out: without positions there is nothing to draw.',
                '2 pictures were left out: nothing outside the file is ever fetched.',
                '1 emission map was left out.',
                '1 roughness map was left out.',
                '1 normal map was left out: on a part, pictures and normal maps must lie alike.',
            ],
            $intake->warnings(),
        );
        [$first, $second, $third] = $intake->materials();
        self::assertSame([0, 0.5, null], [$first->normalMap, $first->normalScale, $second->normalMap]);
        self::assertSame([[0.0, 0.0, 0.0], false], [$first->emission, $first->unlit], 'a map says where it glows');
        self::assertSame([[1.0, 0.0, 0.75], true], [$third->emission, $third->unlit]);
    }

    public function test_a_zip_may_hold_names_with_dots_but_none_that_climb(): void
    {
        $bytes = pack('g*', 0, 0, 0, 1, 0, 0, 0, 2, 0).pack('v*', 0, 1, 2, 0);
        $gltf = ['buffers' => [['byteLength' => strlen($bytes), 'uri' => 'tiles..final.bin']]] + Gltf::triangle();
        $pack = static function (string $name) use ($gltf, $bytes): string {
            $path = Gltf::keep('').'.zip';
            $zip = new \ZipArchive;
            $zip->open($path, \ZipArchive::CREATE);
            $zip->addFromString('hall/hall..v2.gltf', (string) json_encode($gltf));
            $zip->addFromString($name, $bytes);
            $zip->close();

            return $path;
        };
        self::assertCount(1, GltfReader::read($pack('hall/tiles..final.bin'))->primitives(0));
        $this->expectExceptionMessage('climbs out of its folder');
        GltfReader::read($pack('hall/../../tiles..final.bin'));
    }

    /** Long enough for several windows, and each length around their edges. */
    public function test_long_strips_fans_and_loops_become_the_lists_that_their_definition_gives(): void
    {
        mt_srand(8);
        $vertices = 50;
        $points = pack('g*', ...array_map(static fn (int $_): float => mt_rand(-99, 99) / 7, range(1, 3 * $vertices)));
        foreach ([2, 3, 4, 5, 32_766, 32_767, 32_768, 32_769, 65_533, 65_534, 65_535, 98_304] as $count) {
            $corners = array_map(static fn (int $_): int => mt_rand(0, $vertices - 1), range(1, $count));
            foreach ([2 => 2, 3 => 2, 5 => 3, 6 => 3] as $mode => $size) {
                $expected = [];
                foreach (range(0, max(0, $count - $size)) as $at) {
                    $these = array_slice($corners, $at, $size);
                    if (count($these) < $size) {
                        continue;
                    }
                    [$a, $b, $c] = $these + [2 => 0];
                    array_push(
                        $expected,
                        ...match (true) {
                            $mode <= 3 => [$a, $b],
                            $mode === 6 => [$corners[0], $b, $c],
                            default => $at % 2 === 0 ? [$a, $b, $c] : [$a, $c, $b],
                        },
                    );
                }
                if ($mode === 2 && $count > 2) {
                    array_push($expected, $corners[$count - 1], $corners[0]);
                }
                self::assertSame(md5(pack('V*', ...$expected)), md5(self::drawn($mode, $points, $corners)), "mode $mode, $count corners");
            }
        }
        // Without indices, vertex after vertex.
        self::assertSame(md5(pack('V*', ...range(0, 59_999))), md5(self::drawn(4, str_repeat($points, 1200), null)));
    }

    /** @param list<int>|null $corners */
    private static function drawn(int $mode, string $points, ?array $corners): string
    {
        $indices = $corners === null ? '' : pack('V*', ...$corners);
        $piece = ['attributes' => ['POSITION' => 0], 'mode' => $mode] + ($corners === null ? [] : ['indices' => 1]);
        $gltf = [
            'asset' => ['version' => '2.0'],
            'nodes' => [['mesh' => 0]],
            'meshes' => [['primitives' => [$piece]]],
            'accessors' => [
                ['bufferView' => 0, 'componentType' => 5126, 'count' => intdiv(strlen($points), 12), 'type' => 'VEC3'],
                ['bufferView' => 1, 'componentType' => 5125, 'count' => count($corners ?? []), 'type' => 'SCALAR'],
            ],
            'bufferViews' => [
                ['buffer' => 0, 'byteLength' => strlen($points)],
                ['buffer' => 0, 'byteOffset' => strlen($points), 'byteLength' => strlen($indices)],
            ],
            'buffers' => [['byteLength' => strlen($points.$indices)]],
        ];

        $drawn = GltfReader::read(Gltf::binary($gltf, $points.$indices))->primitives(0)[0] ?? null;

        return $drawn->indices ?? '';
    }

    public function test_many_meshes_and_instances_end_in_the_name_of_the_limit(): void
    {
        $gltf = Gltf::triangle();
        $gltf['meshes'] = array_fill(0, 6, $gltf['meshes'][0]);
        self::assertSame(1, GltfReader::read(Gltf::file($gltf), new Limits(meshes: 6))->objects()->count());
        try {
            GltfReader::read(Gltf::file($gltf), new Limits(meshes: 5));
            self::fail('six meshes were read');
        } catch (UnreadableFile $error) {
            self::assertStringContainsString('too many meshes: 6, and the limit is 5', $error->getMessage());
        }
        // Two nodes with three places each.
        $gltf = Gltf::triangle();
        $many = ['EXT_mesh_gpu_instancing' => ['attributes' => ['TRANSLATION' => 0]]];
        $gltf['nodes'] = [['mesh' => 0, 'extensions' => $many], ['mesh' => 0, 'extensions' => $many]];
        $gltf['scenes'] = [['nodes' => [0, 1]]];
        $gltf['extensionsUsed'] = ['EXT_mesh_gpu_instancing'];
        self::assertSame(3, GltfReader::read(Gltf::file($gltf), new Limits(placements: 6))->objects()->drawn(2));
        $this->expectExceptionMessage('too many instances at node 1: 6, and the limit is 5');
        GltfReader::read(Gltf::file($gltf), new Limits(placements: 5));
    }

    public function test_compressed_views_may_not_come_to_more_than_the_limits(): void
    {
        $gltf = Gltf::triangle();
        $packed = ['buffer' => 0, 'byteLength' => 36, 'byteStride' => 12, 'count' => 100, 'mode' => 'ATTRIBUTES'];
        foreach ([2, 3] as $view) {
            $gltf['bufferViews'][$view] = ['buffer' => 0, 'byteLength' => 36, 'extensions' => ['EXT_meshopt_compression' => $packed]];
        }
        $said = static function (Limits $limits) use ($gltf): string {
            try {
                return (string) GltfReader::read(Gltf::file($gltf), $limits)->objects()->count();
            } catch (UnreadableFile $error) {
                return $error->getMessage();
            }
        };
        self::assertSame('1', $said(new Limits(viewBytes: 1200, unpackedBytes: 2400)), 'nothing is drawn out of them');
        $alone = $said(new Limits(viewBytes: 1199));
        self::assertStringContainsString('too many bytes in buffer view 2: 1,200, and the limit is 1,199', $alone);
        self::assertStringContainsString(
            'too many bytes in its compressed data: 2,400, and the limit is 2,399',
            $said(new Limits(unpackedBytes: 2399)),
        );
    }
}
