<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VineShelf\Formats\Files;
use VineShelf\Formats\Inspection;
use VineShelf\Formats\Limits;

/** Writes small glTF files by hand and says what the reader makes of them. */
final class Gltf
{
    /**
     * One triangle in the plane z = 0, from (0, 0) to (1, 0) to (0, 2), as a file with its buffer embedded. @return array<string, mixed>
     */
    public static function triangle(): array
    {
        $bytes = pack('g*', 0, 0, 0, 1, 0, 0, 0, 2, 0).pack('v*', 0, 1, 2, 0);

        return [
            'asset' => ['version' => '2.0'],
            'scene' => 0,
            'scenes' => [['nodes' => [0]]],
            'nodes' => [['mesh' => 0, 'name' => 'Pane']],
            'meshes' => [['primitives' => [['attributes' => ['POSITION' => 0], 'indices' => 1]]]],
            'accessors' => [
                ['bufferView' => 0, 'componentType' => 5126, 'count' => 3, 'type' => 'VEC3', 'min' => [0, 0, 0], 'max' => [1, 2, 0]],
                ['bufferView' => 1, 'componentType' => 5123, 'count' => 3, 'type' => 'SCALAR'],
            ],
            'bufferViews' => [
                ['buffer' => 0, 'byteOffset' => 0, 'byteLength' => 36],
                ['buffer' => 0, 'byteOffset' => 36, 'byteLength' => 6],
            ],
            'buffers' => [['byteLength' => strlen($bytes), 'uri' => self::embedded($bytes)]],
        ];
    }

    public static function embedded(string $bytes): string
    {
        return 'data:application/octet-stream;base64,'.base64_encode($bytes);
    }

    /** @param array<string, mixed> $gltf */
    public static function file(array $gltf, string $ending = ''): string
    {
        return self::keep((string) json_encode($gltf), $ending);
    }

    /** @param array<string, mixed> $gltf */
    public static function binary(array $gltf, string $bytes): string
    {
        $json = (string) json_encode($gltf);
        $json .= str_repeat(' ', -strlen($json) & 3);
        $bytes .= str_repeat("\0", -strlen($bytes) & 3);

        return self::keep(
            'glTF'.
                pack('VVVV', 2, 28 + strlen($json) + strlen($bytes), strlen($json), 0x4e4f534a).
                $json.
                pack('VV', strlen($bytes), 0x004e4942).
                $bytes,
        );
    }

    public static function keep(string $bytes, string $ending = ''): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'shelf-gltf').$ending;
        file_put_contents($path, $bytes);
        register_shutdown_function(static fn () => @unlink($path));

        return $path;
    }

    /**
     * @param array<string, mixed>|string $gltf what it holds, or a path
     *
     * @return array<string, mixed>
     */
    public static function inspect(array|string $gltf, Limits $limits = new Limits): array
    {
        return Inspection::of(Files::open(is_string($gltf) ? $gltf : self::file($gltf), $limits));
    }

    /** @return list<float> the positions of a mesh's first piece */
    public static function positions(string $path, int $mesh = 0): array
    {
        return array_values((array) unpack('g*', Files::open($path)->primitives($mesh)[0]->positions));
    }
}
