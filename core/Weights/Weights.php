<?php

declare(strict_types=1);

namespace VineShelf\Weights;

use VineShelf\Facts\Derived\PlaneColumns;
use VineShelf\Facts\Derived\Values;
use VineShelf\Facts\Facts;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\MeshWeights;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Planes;

/**
 * What sets of rows weigh, at Full and at the rungs in effect. What is drawn is counted for every instance, what is stored once for every
 * mesh and picture. Numbers are added up plane by plane, a fraction of a millisecond for any set of 200,000 rows; only meshes that several
 * rows draw are looked at row by row.
 */
final class Weights
{
    /** Meshes up to which the rows of each are kept apart, and rows from which that is quicker than to walk them. */
    private const APART = 400;

    private const MANY = 600;

    /** @var array<string, Planes> */
    private array $planes = [];

    /** @var array{array<int, int>, array<int, int>, array<int, int>}|null mesh by row, bytes by mesh, and at Coarse */
    private ?array $meshes = null;

    /** @var array<int, Bits>|false|null the rows of each mesh that several draw, false where there are too many to keep them apart */
    private array|false|null $apart = null;

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
            $this->sum('triangles', $fine) + $this->sum('coarsetriangles', $coarse) + Cost::Triangles->ofBox() * $times,
            $this->sum('vertices', $fine) + $this->sum('coarsevertices', $coarse) + Cost::Vertices->ofBox() * $times,
            $this->sum('calls', $fine) + $this->sum('calls', $coarse),
            $this->sum('bytes', $fine) + $this->sum('coarsebytes', $coarse) + $this->bytesOfShared($fine, $coarse),
            $this->bytesOfPictures($rungs->being(Rung::Full->value)->and($rows)),
        );
    }

    /** Triangles at the rungs in effect. */
    public function drawn(Bits $rows, Levels $rungs): int
    {
        $fine = $rungs->atLeast(Rung::Plain->value)->and($rows);
        $coarse = $rungs->atLeast(Rung::Ghost->value)->and($rows)->without($fine);
        $boxes = $rungs->being(Rung::Box->value)->and($rows);

        return $this->sum('triangles', $fine) +
            $this->sum('coarsetriangles', $coarse) +
            Cost::Triangles->ofBox() * $this->sum('placements', $boxes);
    }

    /**
     * What every row weighs at the rungs in effect: triangles, vertices and calls of it and all that it holds; bytes of it alone.
     *
     * @return array<int, int> by row
     */
    public function each(Cost $cost, Levels $rungs): array
    {
        $scene = $this->facts->scene;
        [$fine, $coarse, $boxes, $pictures] = $this->columns($cost);
        $steps = $rungs->translated(range(0, Rung::Full->value));
        $own = [0];
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            $own[] = match (ord($steps[$row])) {
                5 => $fine[$row - 1] + (int) ($pictures[$row] ?? 0),
                4 => $fine[$row - 1],
                3, 2 => $coarse[$row - 1],
                1 => $boxes === [] ? 0 : $cost->ofBox() * $boxes[$row - 1],
                default => 0,
            };
        }
        if ($cost !== Cost::Bytes) {
            $ends = Packed::uint32($scene->column('end'), 0, $scene->count() + 1);
            $sums = [0];
            foreach ($own as $row => $number) {
                $sums[] = $sums[$row] + $number;
            }
            foreach ($ends as $row => $end) {
                $own[$row] = $sums[$end + 1] - $sums[$row];
            }
        }
        unset($own[0]);

        return $own;
    }

    /**
     * What each row draws, from row 1 on: at Full or Plain, at Coarse or Ghost, and how often it is a box; and its pictures, by row.
     *
     * @return array{list<int>, list<int>, list<int>, array<int, int|float>}
     */
    private function columns(Cost $cost): array
    {
        $numbers = fn (string $of): array => PlaneColumns::numbers($this->facts->scene, $of);

        return match ($cost) {
            Cost::Calls => [$numbers('calls'), $numbers('calls'), [], []],
            Cost::Bytes => [$numbers('geometry'), $numbers('coarsegeometry'), [], Values::numbers($this->facts->scene, 'texture')],
            default => [$numbers($cost->value), $numbers("coarse$cost->value"), $numbers('placements'), []],
        };
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
        $shared = $this->facts->bits('shared');
        [$fine, $coarse] = [$fine->and($shared), $coarse->and($shared)];
        if ($fine->isEmpty() && $coarse->isEmpty()) {
            return 0;
        }
        if ($fine->count() + $coarse->count() > self::MANY && $this->apart() !== []) {
            return $this->bytesApart($fine, $coarse);
        }
        [$meshOf, $atFull, $atCoarse] = $this->meshes();
        $bytes = 0;
        $seen = [];
        foreach ($fine->rows() as $row) {
            $mesh = $meshOf[$row];
            if (! isset($seen[$mesh])) {
                $seen[$mesh] = true;
                $bytes += $atFull[$mesh];
            }
        }
        $seenCoarse = [];
        foreach ($coarse->rows() as $row) {
            $mesh = $meshOf[$row];
            if (! isset($seenCoarse[$mesh])) {
                $seenCoarse[$mesh] = true;
                $bytes += isset($atCoarse[$mesh]) ? $atCoarse[$mesh] : (isset($seen[$mesh]) ? 0 : $atFull[$mesh]);
            }
        }

        return $bytes;
    }

    private function bytesApart(Bits $fine, Bits $coarse): int
    {
        [, $atFull, $atCoarse] = $this->meshes();
        $isFine = ! $fine->isEmpty();
        $isCoarse = ! $coarse->isEmpty();
        $bytes = 0;
        foreach ($this->apart() as $mesh => $rows) {
            $here = $isFine && ! $rows->and($fine)->isEmpty();
            $bytes += $here ? $atFull[$mesh] : 0;
            if ($isCoarse && ! $rows->and($coarse)->isEmpty()) {
                $bytes += $atCoarse[$mesh] ?? ($here ? 0 : $atFull[$mesh]);
            }
        }

        return $bytes;
    }

    /** @return array<int, Bits> the rows of each mesh that several draw; none where there are too many */
    private function apart(): array
    {
        if ($this->apart === null) {
            $this->apart = false;
            $meshes = $this->facts->ranked('mesh');
            $shared = $this->facts->bits('shared');
            $all = array_keys(array_count_values(array_map(fn (int $row): int => $this->meshes()[0][$row], $shared->rows())));
            if (count($all) <= self::APART) {
                $this->apart = [];
                foreach ($all as $mesh) {
                    $this->apart[$mesh] = $meshes->in([$mesh]);
                }
            }
        }

        return $this->apart === false ? [] : $this->apart;
    }

    /** @return array{array<int, int>, array<int, int>, array<int, int>} */
    private function meshes(): array
    {
        if ($this->meshes === null) {
            $scene = $this->facts->scene;
            [, , , $bytes] = MeshWeights::all($scene);
            $coarse = array_map(static fn (array $version): int => $version['bytes'], MeshVersions::coarse($scene));
            $this->meshes = [Packed::uint32($scene->column('mesh'), 0, $scene->count() + 1), $bytes, $coarse];
        }

        return $this->meshes;
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
