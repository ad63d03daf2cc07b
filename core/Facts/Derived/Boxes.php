<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Geometry\Box;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * "box": six 32-bit floats per row: a box around what it and what it holds draw on any rung, metres from the origin; infinite where nothing
 * is drawn. It is around the turned boxes of meshes, which are what the rung Box draws: larger than the bounds, but what a region or a ray
 * may meet.
 */
final class Boxes implements Family
{
    public function name(): string
    {
        return 'box';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['records', 'recordAt', 'meshrows', 'parent'];
    }

    public function make(Scene $scene, string $of): string
    {
        $count = $scene->count();
        $parents = Packed::uint32($scene->column('parent'), 0, $count + 1);
        $drawn = Bounds::gathered($this->drawn($scene), $parents);
        $packed = '';
        foreach ($drawn as $box) {
            $packed .=
                $box === null
                    ? pack('g6', INF, INF, INF, -INF, -INF, -INF)
                    : pack('g6', $box->minX, $box->minY, $box->minZ, $box->maxX, $box->maxY, $box->maxZ);
        }

        return $packed;
    }

    /** @return array<int, Box|null> by row, from 0: what the object itself draws */
    private function drawn(Scene $scene): array
    {
        $count = $scene->count();
        $records = $scene->column('records');
        $recordAt = Packed::uint32($scene->column('recordAt'), 0, $count + 2);
        $meshRows = $scene->column('meshrows');
        $boxes = array_fill(0, $count + 1, null);
        $known = [];
        for ($row = 1; $row <= $count; $row++) {
            for ($record = $recordAt[$row]; $record < $recordAt[$row + 1]; $record++) {
                /** @var array<int|string, float> $m */
                $m = unpack('Vobject/Vmesh/g12', $records, $record * DrawRecords::RECORD);
                $mesh = (int) $m['mesh'];
                $known[$mesh] ??= new Box(...Packed::float32($meshRows, $mesh * DrawRecords::MESH + 16, 6));
                $box = $known[$mesh]->transformed([$m[1], $m[2], $m[3], $m[4], $m[5], $m[6], $m[7], $m[8], $m[9], $m[10], $m[11], $m[12]]);
                $boxes[$row] = $boxes[$row] === null ? $box : $boxes[$row]->with($box);
            }
        }

        return $boxes;
    }
}
