<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Facts\Facts;
use VineShelf\Geometry\Shapes;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;

/** Where to stand so that nothing is in front of an object. */
final readonly class Sight
{
    /** Degrees around and up from the horizon; null keeps the height that was looked from. Nearest to the wanted place first. */
    private const TRIES = [
        [0, null],
        [25, null],
        [-25, null],
        [0, 40],
        [50, null],
        [-50, null],
        [40, 40],
        [-40, 40],
        [0, 70],
        [90, null],
        [-90, null],
        [90, 40],
        [-90, 40],
        [180, null],
        [180, 40],
        [135, 20],
        [-135, 20],
    ];

    public function __construct(private Facts $facts, private InEffect $inEffect, private Shapes $shapes) {}

    /**
     * The eye that was wanted if it sees the middle of the object, else the first one around the object, as far away, that does.
     *
     * @param array{float, float, float} $eye    metres
     * @param array{float, float, float} $middle of the object's bounding box, metres
     * @param float                      $radius from the middle to what still belongs to the object, metres
     *
     * @return array{float, float, float}|null null when something is in front from everywhere
     */
    public function from(int $row, array $eye, array $middle, float $radius): ?array
    {
        [$x, $y, $z] = [$eye[0] - $middle[0], $eye[1] - $middle[1], $eye[2] - $middle[2]];
        $flat = hypot($x, $y);
        $distance = hypot($flat, $z);
        if ($distance < 1e-6) {
            return null;
        }
        $turn = $flat > 1e-9 ? atan2($y, $x) : -M_PI / 2;
        foreach (self::TRIES as [$around, $up]) {
            $height = $up === null ? asin($z / $distance) : deg2rad($up);
            $angle = $turn + deg2rad($around);
            $try = [
                $middle[0] + $distance * cos($height) * cos($angle),
                $middle[1] + $distance * cos($height) * sin($angle),
                $middle[2] + $distance * sin($height),
            ];
            if ($this->sees($row, $try, $middle, $radius)) {
                return $around === 0 && $up === null ? $eye : $try;
            }
        }

        return null;
    }

    /**
     * @param array{float, float, float} $eye
     * @param array{float, float, float} $middle
     */
    private function sees(int $row, array $eye, array $middle, float $radius): bool
    {
        $way = [$middle[0] - $eye[0], $middle[1] - $eye[1], $middle[2] - $eye[2]];
        $met = (new Ray($eye, $way))->meet($this->facts, $this->inEffect, $this->shapes, [Rung::Hidden, Rung::Ghost]);

        // Distances are in lengths of the way: 1 is the middle.
        return $met === null ||
            ($met['row'] >= $row && $met['row'] <= $this->facts->scene->end($row)) ||
            $met['distance'] >= 1 - $radius / sqrt($way[0] ** 2 + $way[1] ** 2 + $way[2] ** 2);
    }
}
