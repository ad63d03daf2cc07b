<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * How many triangles meshes have for what they show: for each square metre of the box around the largest object that is drawn with one,
 * and for each pixel that the object covers which is seen largest from any of some cameras. Of a mesh with many objects only some are
 * looked at, evenly spread, and the largest.
 */
final readonly class Fineness
{
    /** Meshes that are looked at, those with the most triangles in all. */
    private const MESHES = 300;

    /** Objects that are looked at, of each mesh. */
    private const OBJECTS = 300;

    private Scene $scene;

    public function __construct(private Facts $facts)
    {
        $this->scene = $facts->scene;
    }

    /**
     * @param int           $least   triangles below which no mesh is too fine
     * @param list<Drawing> $looks   from where, none for nowhere in particular
     * @param float         $times   pixels of the canvas that a pixel of theirs stands for, along each side
     *
     * @return list<array{mesh: int, triangles: int, objects: int, all: int, area: float, pixels: float|null}> triangles of one and of all
     *     together, those with most first; area: m² of the box around the largest, which is the whole of its sides; pixels: of what
     *     is seen largest, 0 when none is in any picture, null without looks
     */
    public function meshes(int $least, array $looks, float $times): array
    {
        $rowsOf = $this->rows($least);
        $some = $found = [];
        foreach ($rowsOf as $mesh => $rows) {
            $step = max(1, intdiv(count($rows), self::OBJECTS));
            foreach ($rows as $at => $row) {
                $at % $step === 0 && ($some[$mesh][] = $row);
            }
        }
        $count = $this->scene->count();
        $all = array_merge([], ...array_values($some));
        sort($all);
        // Everything else need not be looked at.
        $shown = Levels::within(Bits::ofRows($count, $all), 5, 5, 0);
        $pixels = [];
        foreach ($looks as $look) {
            foreach ($look->sized($shown)->covered as $row => $covered) {
                if ($covered > ($pixels[$row] ?? 0.0)) {
                    $pixels[$row] = $covered;
                }
            }
        }
        foreach ($some as $mesh => $rows) {
            [$area, $most] = [0.0, 0.0];
            foreach ($rows as $row) {
                $area = max($area, $this->area($row));
                $most = max($most, $pixels[$row] ?? 0.0);
            }
            $triangles = Packed::uint32At($this->scene->column('meshrows'), $mesh * (DrawRecords::MESH >> 2) + 2);
            $found[] = [
                'mesh' => $mesh,
                'triangles' => $triangles,
                'objects' => count($rowsOf[$mesh]),
                'all' => array_sum(array_map(fn (int $row): int => $this->scene->triangles($row, $row), $rowsOf[$mesh])),
                'area' => $area,
                'pixels' => $looks === [] ? null : $most * $times * $times,
            ];
        }

        return $found;
    }

    /** @return array<int, list<int>> rows by mesh, of the meshes with the most triangles in all */
    private function rows(int $least): array
    {
        $count = $this->scene->count();
        $meshes = $this->scene->column('mesh');
        $rows = $sums = [];
        /** @var array<int, int> $numbers */
        $numbers = $count === 0 ? [] : unpack('V*', $meshes, 4);
        foreach ($numbers as $row => $mesh) {
            if ($mesh > 0) {
                $rows[$mesh][] = $row;
            }
        }
        foreach ($rows as $mesh => $those) {
            $triangles = Packed::uint32At($this->scene->column('meshrows'), $mesh * (DrawRecords::MESH >> 2) + 2);
            if ($triangles >= $least) {
                $sums[$mesh] = $triangles * count($those);
            }
        }
        arsort($sums);
        $found = [];
        foreach (array_slice($sums, 0, self::MESHES, true) as $mesh => $_) {
            $found[$mesh] = $rows[$mesh];
        }

        return $found;
    }

    /** @return float m² of the sides of the box around an object */
    private function area(int $row): float
    {
        $box = $this->facts->box($row);
        if ($box === null) {
            return 0.0;
        }
        [$x, $y, $z] = [$box[3] - $box[0], $box[4] - $box[1], $box[5] - $box[2]];

        return 2 * ($x * $y + $y * $z + $z * $x);
    }
}
