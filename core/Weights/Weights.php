<?php

declare(strict_types=1);

namespace VineShelf\Weights;

use VineShelf\Facts\Facts;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\MeshWeights;
use VineShelf\Scene\Planes;

/**
 * What sets of rows weigh, at Full and at the rungs in effect. What is drawn is counted for every instance, what is stored once for every
 * mesh and picture. Numbers are added up plane by plane, meshes that several rows draw are asked one by one: a fraction of a millisecond
 * for any set of 200,000 rows.
 */
final class Weights
{
    private const BOX_TRIANGLES = 12;

    private const BOX_VERTICES = 24;

    /** @var array<string, Planes> */
    private array $planes = [];

    /** @var list<array{Bits, int, int}>|null of meshes that several rows draw: those rows, bytes, bytes at Coarse */
    private ?array $shared = null;

    /** @var list<array{Bits, int}>|null the rows that each picture is seen on, and its bytes */
    private ?array $pictures = null;

    public function __construct(private readonly Facts $facts) {}

    /** At Full. */
    public function full(Bits $rows): Weight
    {
        return new Weight(
            $this->sum('triangles', $rows),
            $this->sum('vertices', $rows),
            $this->sum('calls', $rows),
            $this->sum('bytes', $rows) + $this->bytesOfShared($rows, Bits::none($rows->length)),
            $this->bytesOfPictures($rows),
        );
    }

    /** At the rungs in effect: {@see Rung}. Plain has no pictures, Box only boxes, and nothing is drawn of what is hidden. */
    public function inEffect(Bits $rows, Levels $rungs): Weight
    {
        $fine = $rungs->atLeast(Rung::Plain->value)->and($rows);
        $coarse = $rungs->atLeast(Rung::Ghost->value)->and($rows)->without($fine);
        $boxes = $rungs->being(Rung::Box->value)->and($rows);
        $times = $boxes->isEmpty() ? 0 : $this->sum('placements', $boxes);

        return new Weight(
            $this->sum('triangles', $fine) + $this->sum('coarsetriangles', $coarse) + self::BOX_TRIANGLES * $times,
            $this->sum('vertices', $fine) + $this->sum('coarsevertices', $coarse) + self::BOX_VERTICES * $times,
            $this->sum('calls', $fine) + $this->sum('calls', $coarse),
            $this->sum('bytes', $fine) + $this->sum('coarsebytes', $coarse) + $this->bytesOfShared($fine, $coarse),
            $this->bytesOfPictures($rungs->being(Rung::Full->value)->and($rows)),
        );
    }

    private function sum(string $what, Bits $rows): int
    {
        if ($rows->isEmpty()) {
            return 0;
        }
        $this->planes[$what] ??= Planes::unpack($this->facts->scene->column("planes.$what"));

        return $this->planes[$what]->sum($rows);
    }

    /** Both versions of a mesh are kept where some rows need the one and some the other. */
    private function bytesOfShared(Bits $fine, Bits $coarse): int
    {
        $bytes = 0;
        foreach ($this->shared() as [$rows, $atFull, $atCoarse]) {
            $hasFine = ! $rows->and($fine)->isEmpty();
            $bytes += $hasFine ? $atFull : 0;
            $bytes += ($atCoarse !== $atFull || ! $hasFine) && ! $rows->and($coarse)->isEmpty() ? $atCoarse : 0;
        }

        return $bytes;
    }

    /** @return list<array{Bits, int, int}> */
    private function shared(): array
    {
        if ($this->shared === null) {
            $this->shared = [];
            [, , , $bytes] = MeshWeights::all($this->facts->scene);
            $coarse = MeshVersions::coarse($this->facts->scene);
            foreach ($this->facts->ranked('mesh')->several() as $mesh => $rows) {
                $atFull = $bytes[$mesh] ?? 0;
                $this->shared[] = [$rows, $atFull, $coarse[$mesh]['bytes'] ?? $atFull];
            }
        }

        return $this->shared;
    }

    private function bytesOfPictures(Bits $rows): int
    {
        $bytes = 0;
        foreach ($rows->isEmpty() ? [] : $this->pictures() as [$those, $size]) {
            $bytes += $those->and($rows)->isEmpty() ? 0 : $size;
        }

        return $bytes;
    }

    /** @return list<array{Bits, int}> */
    private function pictures(): array
    {
        if ($this->pictures === null) {
            $this->pictures = [];
            foreach ($this->facts->surfacesByPicture() as $picture => $surfaces) {
                $this->pictures[] = [$this->facts->ranked('surfaces')->in($surfaces), $this->facts->pictures()[$picture]['bytes'] ?? 0];
            }
        }

        return $this->pictures;
    }
}
