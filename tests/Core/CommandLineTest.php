<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use VineShelf\Formats\Gltf\Beside;

/** bin/shelf inspect, as scripts call it. */
final class CommandLineTest extends TestCase
{
    public function test_inspect_prints_what_a_file_holds(): void
    {
        [$code, $out, $error] = self::shelf('inspect', Gltf::file(Gltf::triangle()), '--json');
        $found = json_decode($out, true);
        self::assertSame([0, ''], [$code, $error]);
        self::assertIsArray($found);
        self::assertSame(
            [
                'format',
                'objects',
                'groups',
                'parts',
                'meshes',
                'triangles',
                'vertices',
                'materials',
                'textures',
                'lights',
                'cameras',
                'curves',
                'points',
                'markers',
                'bounds',
                'warnings',
            ],
            array_keys($found),
        );
        self::assertSame(
            [1, 3, [], [1, 0, 2]],
            [$found['triangles'], $found['vertices'], $found['warnings'], array_map(intval(...), $found['bounds']['max'])],
        );

        [$code, $out] = self::shelf('inspect', Gltf::file(Gltf::triangle()));
        self::assertSame(0, $code);
        self::assertStringContainsString("triangles  1\n", $out);
        self::assertStringContainsString('to (1.000, 0.000, 2.000) metres, z up', $out);
    }

    public function test_a_gltf_may_use_files_in_its_own_folder_or_below_it_and_nothing_else(): void
    {
        $folder = sys_get_temp_dir().'/shelf-beside-'.bin2hex(random_bytes(5));
        mkdir("$folder/model/parts of it", recursive: true);
        $bytes = pack('g*', 0, 0, 0, 1, 0, 0, 0, 2, 0).pack('v*', 0, 1, 2, 0);
        file_put_contents("$folder/model/parts of it/a.bin", $bytes);
        file_put_contents("$folder/secret.bin", $bytes);
        symlink("$folder/secret.bin", "$folder/model/link.bin");
        foreach (
            [
                'parts%20of%20it/a.bin' => true,
                './parts of it/../parts of it/a.bin' => true,
                '../secret.bin' => false,
                '..%2Fsecret.bin' => false,
                'link.bin' => false,
                "$folder/secret.bin" => false,
                "file://$folder/model/parts of it/a.bin" => false,
                'none.bin' => false,
            ] as $uri => $isThere
        ) {
            $gltf = ['buffers' => [['byteLength' => strlen($bytes), 'uri' => $uri]]] + Gltf::triangle();
            file_put_contents("$folder/model/scene.gltf", json_encode($gltf));
            self::assertSame($isThere ? ['parts of it/a.bin'] : [], array_keys(Beside::named("$folder/model/scene.gltf")), $uri);
            [$code, $out, $error] = self::shelf('inspect', "$folder/model/scene.gltf", '--json');
            self::assertSame($isThere ? [0, 1] : [2, null], [$code, json_decode($out, true)['triangles'] ?? null], $uri);
            if (! $isThere) {
                self::assertStringContainsString('files outside it are never followed', $error);
            }
        }
        exec('rm -r '.escapeshellarg($folder));
    }

    public function test_inspect_ends_with_2_and_one_line_when_it_cannot(): void
    {
        foreach (
            [Gltf::keep('no model'), '/nowhere/at all.glb', Gltf::keep(pack('a4VV', 'glTF', 2, 900).str_repeat("\0", 40))] as $path
        ) {
            [$code, $out, $error] = self::shelf('inspect', $path, '--json');
            self::assertSame([2, ''], [$code, $out]);
            self::assertSame(1, substr_count($error, "\n"), $error);
            self::assertStringNotContainsString('#0', $error);
        }
        self::assertSame(2, self::shelf('inspect')[0]);
        self::assertSame(2, self::shelf('polish')[0]);
    }

    public function test_a_file_that_asks_for_too_much_ends_with_a_sentence(): void
    {
        // Says that it holds four thousand million vertices, in a view that is compressed from almost nothing.
        $gltf = GltfReaderTest::bare(
            "\xA0".str_repeat("\0", 60),
            [
                [
                    'buffer' => 0,
                    'byteLength' => 61,
                    'extensions' => [
                        'EXT_meshopt_compression' => [
                            'buffer' => 0,
                            'byteLength' => 61,
                            'byteStride' => 12,
                            'count' => 4_900_000,
                            'mode' => 'ATTRIBUTES',
                        ],
                    ],
                ],
            ],
            [['bufferView' => 0, 'componentType' => 5126, 'count' => 4_900_000, 'type' => 'VEC3']],
        );
        [$code, , $error] = self::shelf('inspect', Gltf::file($gltf));
        self::assertSame(2, $code);
        self::assertStringContainsString('ends too early', $error);
    }

    /** @return array{int, string, string} exit code, output, errors */
    private static function shelf(string ...$words): array
    {
        $process = proc_open([PHP_BINARY, __DIR__.'/../../bin/shelf', ...$words], [1 => ['pipe', 'w'], 2 => ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        $out = (string) stream_get_contents($pipes[1]);
        $error = (string) stream_get_contents($pipes[2]);

        return [proc_close($process), $out, $error];
    }
}
