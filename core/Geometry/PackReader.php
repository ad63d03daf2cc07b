<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * Reads what {@see PackWriter} wrote. Packs are our own files, written once and never changed: what does not fit is a fault, not bad input.
 */
final readonly class PackReader
{
    /** Where the binary part begins. */
    private int $start;

    /** @var list<array{byteOffset: int, byteLength: int}> */
    private array $views;

    /** @var list<array{bufferView: int, componentType: int}> */
    private array $accessors;

    /**
     * @var list<array{primitives: list<array{attributes: array<string, int>, indices: int, mode: int, extras?: array{material: int}}>}>
     */
    private array $meshes;

    /**
     * @var array<int, array<int, array{mesh: int, translation: list<float>, scale: list<float>, extras: array<string, int>}>> by mesh
     *     number, then by version
     */
    private array $nodes;

    public function __construct(private string $bytes)
    {
        if (strlen($bytes) < 28 || (unpack('V', $bytes, 8) ?: [])[1] !== strlen($bytes)) {
            throw new \UnexpectedValueException('A pack is not as long as it was written.');
        }
        /** @var array{json: int} $head */
        $head = unpack('Vjson', $bytes, 12);
        $json = json_decode(substr($bytes, 20, $head['json']), true, 64, JSON_THROW_ON_ERROR);
        if (! is_array($json)) {
            throw new \UnexpectedValueException('A pack is not laid out as it was written.');
        }
        $this->start = 20 + $head['json'] + 8;
        /**
         * @var array{
         *     bufferViews?: list<array{byteOffset: int, byteLength: int}>,
         *     accessors?: list<array{bufferView: int, componentType: int}>,
         *     meshes?: list<array{
         *         primitives: list<array{attributes: array<string, int>, indices: int, mode: int, extras?: array{material: int}}>
         *     }>,
         *     nodes?: list<array{
         *         mesh: int, translation: list<float>, scale: list<float>, extras: array{mesh: int, version?: int}
         *     }>
         * } $json
         */
        $this->views = $json['bufferViews'] ?? [];
        $this->accessors = $json['accessors'] ?? [];
        $this->meshes = $json['meshes'] ?? [];
        $nodes = [];
        foreach ($json['nodes'] ?? [] as $node) {
            $nodes[$node['extras']['mesh']][$node['extras']['version'] ?? 0] = $node;
        }
        $this->nodes = $nodes;
    }

    /** A pack that is there and whole; null for one that is lost or no longer what it was: its meshes are done without. */
    public static function whole(?string $bytes): ?self
    {
        try {
            return $bytes === null ? null : new self($bytes);
        } catch (\UnexpectedValueException | \JsonException) {
            return null;
        }
    }

    /** @return array<int, Shape> by mesh number */
    public static function shapes(string $bytes): array
    {
        $reader = self::whole($bytes);
        $shapes = [];
        foreach ($reader->nodes ?? [] as $mesh => $_) {
            $shapes[$mesh] = $reader?->packed($mesh)?->shape();
        }

        return array_filter($shapes);
    }

    /** @return list<array{int, int}> mesh number and version of all that it holds */
    public function holds(): array
    {
        $all = [];
        foreach ($this->nodes as $mesh => $versions) {
            foreach ($versions as $version => $_) {
                $all[] = [$mesh, $version];
            }
        }

        return $all;
    }

    /** @param int $version 0 for the mesh itself @return PackedShape|null null when the pack does not hold it */
    public function packed(int $mesh, int $version = 0): ?PackedShape
    {
        $node = $this->nodes[$mesh][$version] ?? null;
        if ($node === null) {
            return null;
        }
        $pieces = [];
        foreach ($this->meshes[$node['mesh']]['primitives'] as $primitive) {
            $attributes = $primitive['attributes'];
            $pieces[] = new PackedPiece(
                PrimitiveKind::from($primitive['mode']),
                (string) $this->cut($attributes['POSITION']),
                (string) $this->cut($primitive['indices']),
                $this->accessors[$primitive['indices']]['componentType'] === 5125,
                $this->cut($attributes['NORMAL'] ?? null),
                $this->cut($attributes['TEXCOORD_0'] ?? null),
                $this->cut($attributes['COLOR_0'] ?? null),
                $primitive['extras']['material'] ?? 0,
            );
        }
        [$x, $y, $z] = array_map(floatval(...), $node['translation']);
        [$sx, $sy, $sz] = array_map(floatval(...), $node['scale']);

        return new PackedShape([$x, $y, $z], [$sx, $sy, $sz], $pieces);
    }

    private function cut(?int $accessor): ?string
    {
        if ($accessor === null) {
            return null;
        }
        $view = $this->views[$this->accessors[$accessor]['bufferView']];

        return substr($this->bytes, $this->start + $view['byteOffset'], $view['byteLength']);
    }
}
