<?php

declare(strict_types=1);

namespace App\Exporting;

use App\Bench\Bench;
use App\Files\Kept;
use VineShelf\Export\Shapes;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\PackReader;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\Packed;

/** The meshes of a project, from its packs. */
final class KeptShapes implements Shapes
{
    /** Packs that are open at once. */
    private const OPEN = 40;

    /** @var array<int, PackReader|null> by pack */
    private array $open = [];

    /** @var array<int, string> */
    private array $files;

    public function __construct(private readonly Bench $bench)
    {
        $this->files = array_map(strval(...), $bench->project->packs()->pluck('file', 'no')->all());
    }

    public function fine(int $mesh): ?PackedShape
    {
        $rows = $this->bench->scene()->column('meshrows');
        $at = $mesh * DrawRecords::MESH;

        return $at + DrawRecords::MESH > strlen($rows) ? null : $this->pack(Packed::uint32($rows, $at + 4, 1)[0])?->packed($mesh);
    }

    public function coarse(int $mesh): ?PackedShape
    {
        foreach (MeshVersions::of($this->bench->scene(), $mesh) as $at => $version) {
            if ($version['coarse']) {
                return $this->pack($version['pack'])?->packed($mesh, $at + 1);
            }
        }

        return $this->fine($mesh);
    }

    private function pack(int $number): ?PackReader
    {
        if (! array_key_exists($number, $this->open)) {
            if (count($this->open) >= self::OPEN) {
                $this->open = [];
            }
            $bytes = Kept::get($this->files[$number] ?? '');
            $this->open[$number] = PackReader::whole($bytes);
        }

        return $this->open[$number];
    }
}
