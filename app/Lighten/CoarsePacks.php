<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Files\Compressing;
use App\Files\Kept;
use App\Files\UnableToKeep;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\PackWriter;
use VineShelf\Scene\MeshVersions;
use VineShelf\Simplify\Version;
use VineShelf\Simplify\Versions;

/** Writes coarser versions into packs beside those of the meshes; the coarsest, which many pictures need, do not lie with finer ones. */
final class CoarsePacks
{
    /** Uncompressed bytes after which a pack is closed. */
    private const PACK_BYTES = 131_072;

    /** @var list<array{file: string, bytes: int, versions: string}> */
    public array $all = [];

    /** Bytes on the disk. */
    public int $kept = 0;

    /** @var array<int, PackWriter> by how coarse */
    private array $open = [];

    /** @var array<int, string> what is in those, as {@see MeshVersions} has it */
    private array $entries = [];

    private readonly Compressing $compressing;

    /** @param string $folder that the packs lie in */
    public function __construct(private readonly string $folder)
    {
        $this->compressing = new Compressing;
    }

    /**
     * @param list<Version> $versions
     *
     * @throws UnableToKeep
     */
    public function add(int $mesh, PackedShape $shape, array $versions): void
    {
        $coarse = Versions::coarse(array_map(static fn (Version $version): float => $version->error, $versions), $shape->reach());
        foreach ($versions as $at => $version) {
            // Of two versions in a row, the finer ones are hardly ever needed together with the coarser ones.
            $level = intdiv($at, 2);
            $pack = $this->open[$level] ??= new PackWriter;
            $size = $pack->addVersion($mesh, $at + 1, $version->shape);
            $this->entries[$level] =
                ($this->entries[$level] ?? '').
                MeshVersions::entry($mesh, $version->triangles, $size['vertices'], $version->error, $size['bytes'], $at + 1 === $coarse);
            if ($pack->size() >= self::PACK_BYTES) {
                $this->close($level);
            }
        }
    }

    /** @throws UnableToKeep */
    public function finish(): void
    {
        array_map($this->close(...), array_keys($this->open));
        $this->kept += $this->compressing->finish();
    }

    /** Lets go of what was written: nothing names it. */
    public function letGo(): void
    {
        foreach ($this->all as $pack) {
            Kept::disk()->delete([$pack['file'], $pack['file'].'.gz']);
        }
        $this->all = [];
    }

    private function close(int $level): void
    {
        $bytes = $this->open[$level]->finish();
        $file = $this->folder.'/'.hash('xxh128', $bytes).'.glb';
        $this->all[] = ['file' => $file, 'bytes' => strlen($bytes), 'versions' => $this->entries[$level]];
        Kept::put($file, $bytes);
        $this->compressing->add($file, $bytes);
        $this->kept += strlen($bytes);
        unset($this->open[$level], $this->entries[$level]);
    }
}
