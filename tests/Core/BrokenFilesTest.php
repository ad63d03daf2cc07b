<?php

declare(strict_types=1);

namespace Tests\Core;

use MarlpitBaths\MarlpitBaths;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use VineShelf\Formats\Files;
use VineShelf\Formats\UnreadableFile;

final class BrokenFilesTest extends TestCase
{
    /** @return iterable<string, array{callable(): string, string}> how the file is made, and a part of what is said */
    public static function broken(): iterable
    {
        $changed = static fn (callable $change): callable => static function () use ($change): string {
            $gltf = Gltf::triangle();
            $change($gltf);

            return Gltf::file($gltf);
        };
        yield 'nothing' => [static fn (): string => Gltf::keep(''), 'The file is empty.'];
        yield 'not there' => [static fn (): string => '/nowhere/hall.glb', 'There is no readable file'];
        yield 'a picture' => [static fn (): string => Gltf::keep("\x89PNG\r\n\x1a\n"), 'This is not a glTF file'];
        yield 'old binary' => [static fn (): string => Gltf::keep('glTF'.pack('VVVV', 1, 20, 0, 0)), 'version 1; version 2 is supported'];
        yield 'header only' => [
            static fn (): string => Gltf::keep('glTF'.pack('V', 2)),
            'the header of a .glb needs 20 bytes and there are 8',
        ];
        yield 'length lies' => [
            static fn (): string => Gltf::keep('glTF'.pack('VVVV', 2, 4_000_000, 2, 0x4e4f534a).'{}'),
            'the .glb needs 4,000,000 bytes and there are 22',
        ];
        yield 'JSON length lies' => [
            static fn (): string => Gltf::keep('glTF'.pack('VVVV', 2, 22, 900, 0x4e4f534a).'{}'),
            'the JSON chunk needs 900 bytes',
        ];
        yield 'JSON breaks off' => [
            static fn (): string => Gltf::keep('{"asset":{"version":"2.0"},"nodes":[{"name":"Po'),
            "The file's JSON is broken in \"nodes\"",
        ];
        yield 'JSON is no object' => [static fn (): string => Gltf::keep('{"asset" "2.0"}'), 'a member name was expected'];
        yield 'nested without end' => [
            static fn (): string => Gltf::keep('{"asset":{"version":"2.0"},"extras":'.str_repeat('[', 3_000_000)),
            'JSON',
        ];
        yield 'no version' => [
            $changed(static function (array &$gltf): void {
                unset($gltf['asset']);
            }),
            '"asset.version" is missing',
        ];
        yield 'version 3' => [
            $changed(static function (array &$gltf): void {
                $gltf['asset']['version'] = '3.0';
            }),
            'The file is glTF version "3.0"',
        ];
        yield 'draco' => [
            $changed(static function (array &$gltf): void {
                $gltf['extensionsRequired'] = ['KHR_draco_mesh_compression'];
            }),
            'requires the extension "KHR_draco_mesh_compression"',
        ];
        yield 'cycle' => [
            $changed(static function (array &$gltf): void {
                $gltf['nodes'] = [['children' => [1]], ['children' => [0]]];
            }),
            'Node 0 is a root of the scene and stands under node 1 as well',
        ];
        yield 'own child' => [
            $changed(static function (array &$gltf): void {
                $gltf['nodes'] = [['children' => [0]]];
            }),
            'Node 0',
        ];
        yield 'two parents' => [
            $changed(static function (array &$gltf): void {
                $gltf['nodes'] = [['children' => [2]], ['children' => [2]], []];
            }),
            'Node 2 stands under two parents',
        ];
        yield 'twice in the scene' => [
            $changed(static function (array &$gltf): void {
                $gltf['scenes'][0]['nodes'] = [0, 0];
            }),
            'Node 0 stands in the scene twice',
        ];
        yield 'no such node' => [
            $changed(static function (array &$gltf): void {
                $gltf['scenes'][0]['nodes'] = [7];
            }),
            'The scene refers to node 7, which the file does not have.',
        ];
        yield 'no such mesh' => [
            $changed(static function (array &$gltf): void {
                $gltf['nodes'][0]['mesh'] = 3;
            }),
            'A node refers to mesh 3',
        ];
        yield 'no such scene' => [
            $changed(static function (array &$gltf): void {
                $gltf['scene'] = 4;
            }),
            'The file refers to scene 4',
        ];
        yield 'no such material' => [
            $changed(static function (array &$gltf): void {
                $gltf['meshes'][0]['primitives'][0]['material'] = 1;
            }),
            'Mesh 0 refers to material 1',
        ];
        yield 'view past the end' => [
            $changed(static function (array &$gltf): void {
                $gltf['bufferViews'][0]['byteOffset'] = 30;
            }),
            'buffer view 0 needs 66 bytes and there are 44',
        ];
        yield 'accessor past the end' => [
            $changed(static function (array &$gltf): void {
                $gltf['accessors'][0]['count'] = 300;
            }),
            'buffer view 0 needs 3,600 bytes and there are 36',
        ];
        yield 'index past the end' => [
            $changed(static function (array &$gltf): void {
                $gltf['accessors'][1]['byteOffset'] = 0;
                $gltf['bufferViews'][1] = ['buffer' => 0, 'byteOffset' => 12, 'byteLength' => 6];
            }),
            'has only 3',
        ];
        yield 'negative count' => [
            $changed(static function (array &$gltf): void {
                $gltf['accessors'][0]['count'] = -3;
            }),
            '"count" of accessor 0 must be a whole number',
        ];
        yield 'wrong type' => [
            $changed(static function (array &$gltf): void {
                $gltf['accessors'][0]['type'] = 'VEC9';
            }),
            '"type" of accessor 0 is not one of',
        ];
        yield 'name is a list' => [
            $changed(static function (array &$gltf): void {
                $gltf['nodes'][0]['name'] = ['a'];
            }),
            '"name" of node 0 must be a text',
        ];
        yield 'matrix too short' => [
            $changed(static function (array &$gltf): void {
                $gltf['nodes'][0]['matrix'] = [1, 0];
            }),
            '"matrix" of node 0 must be 16 numbers',
        ];
        yield 'outside file' => [
            $changed(static function (array &$gltf): void {
                $gltf['buffers'][0]['uri'] = 'http://127.0.0.1/hall.bin';
            }),
            'Buffer 0 is not in the file; files outside it are never followed',
        ];
        yield 'file path' => [
            $changed(static function (array &$gltf): void {
                $gltf['buffers'][0]['uri'] = '../../etc/passwd';
            }),
            'Buffer 0 is not in the file',
        ];
        yield 'bad base64' => [
            $changed(static function (array &$gltf): void {
                $gltf['buffers'][0]['uri'] = 'data:;base64,%%%';
            }),
            'not valid base64',
        ];
        yield 'not a number' => [
            $changed(static function (array &$gltf): void {
                $gltf['buffers'][0]['uri'] = Gltf::embedded(pack('g*', NAN, 0, 0, 1, 0, 0, 0, 2, 0).pack('v*', 0, 1, 2, 0));
            }),
            'a vertex whose position is not a finite number',
        ];
        yield 'zip without a scene' => [
            static fn (): string => GltfReaderTest::zip(['readme.txt' => 'hello']),
            'The zip holds no .gltf file.',
        ];
        yield 'zip with two' => [static fn (): string => GltfReaderTest::zip(['a.gltf' => '{}', 'b.gltf' => '{}']), 'holds 2 .gltf files'];
        yield 'zip that climbs' => [static fn (): string => GltfReaderTest::zip(['../hall.gltf' => '{}']), 'climbs out of its folder'];
        yield 'zip that explodes' => [
            static fn (): string => GltfReaderTest::zip(['hall.gltf' => str_repeat(' ', 20_000_000).'{}']),
            'unpacks to too much',
        ];
        yield 'zip cut off' => [
            static fn (): string => Gltf::keep(substr((string) file_get_contents(GltfReaderTest::zip(['hall.gltf' => '{}'])), 0, 40)),
            'The zip is broken',
        ];
    }

    /** @param callable(): string $make */
    #[DataProvider('broken')]
    public function test_says_one_clear_sentence(callable $make, string $part): void
    {
        $path = $make();
        try {
            Gltf::inspect($path);
            self::fail('The file was read.');
        } catch (UnreadableFile $error) {
            self::assertStringContainsString($part, $error->getMessage());
            self::assertStringNotContainsString("\n", $error->getMessage());
            self::assertLessThan(400, strlen($error->getMessage()));
        }
    }

    public function test_random_damage_ends_in_an_import_or_a_sentence(): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'shelf');
        MarlpitBaths::write($path, 'demo');
        $whole = (string) file_get_contents($path);
        unlink($path);
        mt_srand(11);
        $said = 0;
        for ($round = 0; $round < 120; $round++) {
            $bytes = $round % 3 === 0 ? substr($whole, 0, mt_rand(0, strlen($whole))) : $whole;
            for ($hit = $round % 3 === 0 ? 0 : mt_rand(1, 6); $hit > 0; $hit--) {
                // Most damage goes into the JSON, where it does the most harm.
                $bytes[mt_rand(0, $round % 3 === 1 ? 900_000 : strlen($bytes) - 1)] = chr(mt_rand(0, 255));
            }
            $broken = Gltf::keep($bytes);
            try {
                $intake = Files::open($broken);
                foreach (array_slice(array_keys($intake->meshes()), 0, 12) as $mesh) {
                    $intake->primitives($mesh);
                }
            } catch (UnreadableFile $error) {
                $said++;
                self::assertNotSame('', $error->getMessage());
            }
            unlink($broken);
        }
        self::assertGreaterThan(40, $said);
    }
}
