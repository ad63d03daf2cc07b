<?php

declare(strict_types=1);

namespace App\Intake;

use App\Files\Compressing;
use App\Files\Kept;
use VineShelf\Formats\Intake;
use VineShelf\Geometry\Hull;
use VineShelf\Geometry\Hulls;
use VineShelf\Geometry\PackedMesh;
use VineShelf\Geometry\PackWriter;
use VineShelf\Geometry\Primitive;

/** Writes a source's meshes into packs on the disk for kept files. */
final class Packer
{
    /** Uncompressed bytes after which a pack is closed: small enough to come in order of need, large enough to come in few requests. */
    private const PACK_BYTES = 196_608;

    /** @var array<int, PackedMesh> by the source's own mesh index */
    public array $meshes = [];

    /** @var array<int, int> index of its pack by the source's own mesh index */
    public array $packOf = [];

    /** @var list<array{file: string, bytes: int}> */
    public array $packs = [];

    /** File of the points that can lie outermost; where meshes stand in their packs lies beside it. */
    public string $hulls = '';

    private string $points = '';

    private string $shapes = '';

    /** Bytes on the disk. */
    public int $kept = 0;

    private PackWriter $open;

    private readonly Compressing $compressing;

    /** @var list<int> */
    private array $inOpen = [];

    /** @param string $final where the folder will lie in the end */
    public function __construct(private readonly string $folder, private readonly string $final)
    {
        $this->open = new PackWriter;
        $this->compressing = new Compressing;
    }

    /**
     * @param array<int, int>          $layerOf   a layer by mesh: packs do not mix layers, so that a hidden layer's packs are never sent
     * @param array<int, int>          $numbers   project mesh number by the source's own index
     * @param array<int, int>          $materials project material number by the source's own index
     * @param callable(int, int): void $progress  meshes done, of how many
     */
    public function pack(Intake $intake, array $layerOf, array $numbers, array $materials, callable $progress): void
    {
        asort($layerOf);
        $layer = null;
        $done = 0;
        foreach ($layerOf as $mesh => $inLayer) {
            if ($layer !== $inLayer || $this->open->size() >= self::PACK_BYTES) {
                $this->close();
                $layer = $inLayer;
            }
            $primitives = $intake->primitives($mesh);
            $this->meshes[$mesh] = $this->open->add($numbers[$mesh], $primitives, $materials);
            $positions = array_map(static fn (Primitive $primitive): string => $primitive->positions, $primitives);
            $this->points .= Hulls::entry($numbers[$mesh], Hull::of($positions));
            $this->shapes .= $this->meshes[$mesh]->shape;
            $this->inOpen[] = $mesh;
            $progress(++$done, count($layerOf));
        }
        $this->close();
        Kept::put($this->folder.'/hulls', $this->points);
        Kept::put($this->folder.'/shapes', $this->shapes);
        $this->kept += $this->compressing->finish();
        $this->hulls = $this->final.'/hulls';
        $this->kept += strlen($this->points) + strlen($this->shapes);
        $this->points = $this->shapes = '';
    }

    private function close(): void
    {
        if ($this->inOpen === []) {
            return;
        }
        foreach ($this->inOpen as $mesh) {
            $this->packOf[$mesh] = count($this->packs);
        }
        $bytes = $this->open->finish();
        $file = $this->folder.'/'.hash('xxh128', $bytes).'.glb';
        Kept::put($file, $bytes);
        $this->compressing->add($file, $bytes);
        $this->kept += strlen($bytes);
        $this->packs[] = ['file' => $this->final.substr($file, strlen($this->folder)), 'bytes' => strlen($bytes)];
        $this->open = new PackWriter;
        $this->inOpen = [];
    }
}
