<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Bench\Bench;
use App\Files\Kept;
use App\Scenes\MeshShapes;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\Shape;
use VineShelf\Lighten\VersionedShapes;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\Packed;

/**
 * The meshes of a project and their coarser versions, from its packs. Small meshes are quicker to draw than a version of them is to find,
 * and so are all once many packs have been opened.
 */
final class KeptVersions implements VersionedShapes
{
    /** Triangles of meshes that are drawn as they are. */
    private const SMALL = 150;

    /** Packs that are opened in all. */
    private const PACKS = 400;

    private readonly MeshShapes $fine;

    /** @var array<int, array<int, Shape|null>> by pack: version by mesh and number, as mesh * 16 + number */
    private array $open = [];

    /** @var array<int, list<array{pack: int, triangles: int, vertices: int, error: float, bytes: int, coarse: bool}>> */
    private readonly array $versions;

    /** @var array<int, string> */
    private readonly array $files;

    public function __construct(private readonly Bench $bench)
    {
        $this->fine = new MeshShapes($bench->project, $bench->scene());
        $this->versions = MeshVersions::all($bench->scene());
        $this->files = array_map(strval(...), $bench->project->packs()->pluck('file', 'no')->all());
    }

    public function within(int $mesh, float $error): ?Shape
    {
        $best = null;
        foreach ($this->versions[$mesh] ?? [] as $at => $version) {
            $best = $version['error'] <= $error ? $at : $best;
        }

        return $best === null || $this->triangles($mesh) < self::SMALL ? $this->fine->shape($mesh) : $this->version($mesh, $best);
    }

    public function coarse(int $mesh): ?Shape
    {
        foreach ($this->triangles($mesh) < self::SMALL ? [] : $this->versions[$mesh] ?? [] as $at => $version) {
            if ($version['coarse']) {
                return $this->version($mesh, $at);
            }
        }

        return $this->fine->shape($mesh);
    }

    private function version(int $mesh, int $at): ?Shape
    {
        $pack = $this->versions[$mesh][$at]['pack'];
        if (! isset($this->open[$pack]) && count($this->open) < self::PACKS) {
            $bytes = Kept::get($this->files[$pack] ?? '');
            $this->open[$pack] = [];
            $reader = PackReader::whole($bytes);
            foreach ($reader?->holds() ?? [] as [$of, $version]) {
                $this->open[$pack][$of * 16 + $version] = $reader?->packed($of, $version)?->shape();
            }
        }

        return $this->open[$pack][$mesh * 16 + $at + 1] ?? $this->fine->shape($mesh);
    }

    private function triangles(int $mesh): int
    {
        return Packed::uint32At($this->bench->scene()->column('meshrows'), $mesh * (DrawRecords::MESH >> 2) + 2);
    }
}
