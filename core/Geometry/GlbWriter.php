<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** Writes binary glTF 2.0. Entries are encoded as they come, so a file of any size needs little memory beyond its JSON text. */
final class GlbWriter
{
    /** @var array<string, list<string>> encoded entries by member */
    private array $lists = [];

    /** @var resource */
    private $binary;

    private int $bytes = 0;

    /** @var array<string, true> */
    private array $extensions = [];

    /** @var array<string, true> */
    private array $required = [];

    /** @var array<string, mixed> */
    private array $more = [];

    /** Bytes that compressed views would take: of a buffer that is not there. */
    private int $unpacked = 0;

    /** What a binary glTF can be long, in bytes: it says so in 32 bits. */
    public const MOST = 0xffffffff;

    /** @param int $most bytes that it may be long */
    public function __construct(private readonly string $generator = 'Vine Shelf', private readonly int $most = self::MOST)
    {
        $stream = fopen('php://temp/maxmemory:33554432', 'w+b');
        if ($stream === false) {
            throw new \RuntimeException('No room for temporary bytes.');
        }
        $this->binary = $stream;
    }

    /**
     * @param string               $member for example "nodes"
     * @param array<string, mixed> $entry
     *
     * @return int its index
     */
    public function add(string $member, array $entry): int
    {
        $this->lists[$member][] = json_encode(
            $entry === [] ? new \stdClass : $entry,
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE,
        );

        return count($this->lists[$member]) - 1;
    }

    /** Bytes of the binary part so far: where the next view begins. */
    public function size(): int
    {
        return $this->bytes;
    }

    public function count(string $member): int
    {
        return count($this->lists[$member] ?? []);
    }

    public function uses(string $extension, bool $required = false): void
    {
        $this->extensions[$extension] = true;
        if ($required) {
            $this->required[$extension] = true;
        }
    }

    /** @param mixed $value a member that is not a list, for example "scene" or "extensions" */
    public function set(string $member, mixed $value): void
    {
        $this->more[$member] = $value;
    }

    /**
     * @param int|null $target 34962 for vertices, 34963 for indices
     * @param int      $stride bytes from one vertex to the next, 0 for tightly packed
     *
     * @return int the view's index
     */
    public function view(string $bytes, ?int $target = null, int $stride = 0): int
    {
        $view = ['buffer' => 0, 'byteOffset' => $this->bytes, 'byteLength' => strlen($bytes)];
        if ($stride > 0) {
            $view['byteStride'] = $stride;
        }
        if ($target !== null) {
            $view['target'] = $target;
        }
        $this->put($bytes);

        return $this->add('bufferViews', $view);
    }

    /**
     * A view that EXT_meshopt_compression compresses.
     *
     * @param string $mode "ATTRIBUTES", "TRIANGLES" or "INDICES"
     *
     * @return int the view's index
     */
    public function compressed(string $packed, int $count, int $stride, string $mode, int $target): int
    {
        $at = $this->bytes;
        $this->put($packed);
        $view = ['buffer' => 1, 'byteOffset' => $this->unpacked, 'byteLength' => $count * $stride];
        $this->unpacked += ($count * $stride + 3) & ~3;
        $extension = [
            'buffer' => 0,
            'byteOffset' => $at,
            'byteLength' => strlen($packed),
            'byteStride' => $stride,
            'count' => $count,
            'mode' => $mode,
        ];

        return $this->add(
            'bufferViews',
            $view +
                ($mode === 'ATTRIBUTES' ? ['byteStride' => $stride] : []) + [
                    'target' => $target,
                    'extensions' => ['EXT_meshopt_compression' => $extension],
                ],
        );
    }

    /** @throws FileTooLong as soon as it is clear */
    private function put(string $bytes): void
    {
        $padded = $bytes.str_repeat("\0", -strlen($bytes) & 3);
        $this->bytes += strlen($padded);
        if ($this->bytes > $this->most) {
            throw FileTooLong::binaryGltf($this->most);
        }
        fwrite($this->binary, $padded);
    }

    /** @param array<string, mixed> $more */
    public function accessor(int $view, int $componentType, string $type, int $count, array $more = []): int
    {
        return $this->add(
            'accessors',
            ['bufferView' => $view, 'componentType' => $componentType, 'count' => $count, 'type' => $type] + $more,
        );
    }

    /**
     * @param resource $out
     *
     * @return int bytes that it takes
     *
     * @throws FileTooLong when that is more than it may be
     */
    public function write($out): int
    {
        $json = '{"asset":'.json_encode(['version' => '2.0', 'generator' => $this->generator], JSON_THROW_ON_ERROR);
        foreach (['extensionsUsed' => $this->extensions, 'extensionsRequired' => $this->required] as $member => $names) {
            if ($names !== []) {
                $json .= ',"'.$member.'":'.json_encode(array_keys($names), JSON_THROW_ON_ERROR);
            }
        }
        foreach ($this->more as $member => $value) {
            $json .= ',"'.$member.'":'.json_encode($value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES);
        }
        foreach ($this->lists as $member => $entries) {
            $json .= ',"'.$member.'":['.implode(',', $entries).']';
        }
        if ($this->bytes > 0) {
            $fallback =
                $this->unpacked === 0
                    ? ''
                    : ',{"byteLength":'.$this->unpacked.',"extensions":{"EXT_meshopt_compression":{"fallback":true}}}';
            $json .= ',"buffers":[{"byteLength":'.$this->bytes.'}'.$fallback.']';
        }
        $json .= '}';
        $json .= str_repeat(' ', -strlen($json) & 3);
        $length = 20 + strlen($json) + ($this->bytes > 0 ? 8 + $this->bytes : 0);
        if ($length > $this->most) {
            throw FileTooLong::binaryGltf($this->most);
        }
        fwrite($out, 'glTF'.pack('VVVV', 2, $length, strlen($json), 0x4e4f534a).$json);
        if ($this->bytes > 0) {
            fwrite($out, pack('VV', $this->bytes, 0x004e4942));
            rewind($this->binary);
            stream_copy_to_stream($this->binary, $out);
        }

        return $length;
    }

    public function bytes(): string
    {
        $out = fopen('php://temp/maxmemory:67108864', 'w+b');
        if ($out === false) {
            throw new \RuntimeException('No room for temporary bytes.');
        }
        $this->write($out);
        rewind($out);

        return (string) stream_get_contents($out);
    }
}
