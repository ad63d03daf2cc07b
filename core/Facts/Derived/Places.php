<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Facts\Facts;
use VineShelf\Geometry\Box;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * "place": laid out as "box", but as exact as the bounds: where each object is, also what draws nothing. A lamp or a camera in a building
 * makes the building no larger; where there is nothing else, as in a group of cameras, it says where things are.
 */
final class Places implements Family
{
    public function name(): string
    {
        return 'place';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['bounds', 'spots', 'parent', 'origin'];
    }

    public function make(Scene $scene, string $of): string
    {
        $count = $scene->count();
        $boxes = array_fill(0, $count + 1, null);
        // As the records, boxes are kept without the origin, so that floats stay exact.
        $origin = (new Facts($scene))->origin();
        $spots = $scene->column('spots');
        for ($at = 0; $at < strlen($spots); $at += 28) {
            $row = Packed::uint32At(substr($spots, $at, 4), 0);
            [$x, $y, $z] = Packed::float64($spots, $at + 4, 3);
            [$x, $y, $z] = [$x - $origin[0], $y - $origin[1], $z - $origin[2]];
            $boxes[$row] = new Box($x, $y, $z, $x, $y, $z);
        }
        $places = '';
        foreach (str_split($scene->column('bounds'), 48 * 4096) as $window) {
            $places .= pack('g*', ...Packed::float64($window, 0, intdiv(strlen($window), 8)));
        }
        foreach (Bounds::gathered($boxes, Packed::uint32($scene->column('parent'), 0, $count + 1)) as $row => $box) {
            if ($box !== null && Packed::float32($places, $row * 24, 1)[0] === INF) {
                $places = substr_replace($places, pack('g6', ...$box->toList()), $row * 24, 24);
            }
        }

        return $places;
    }
}
