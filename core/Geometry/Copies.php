<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * Where copies stand: each one step further than the one before. A step turns about the vertical through a point, then moves: a row, a
 * circle, or a stair that winds.
 *
 * @phpstan-import-type Transform from Affine
 */
final readonly class Copies
{
    /**
     * @param int                               $count  how many copies
     * @param array{float, float, float}        $move   of each step, metres
     * @param float                             $turn   of each step about the vertical, degrees, counter-clockwise seen from above
     * @param array{float, float}|null          $around x and y of the vertical, metres; null for the middle of what is copied
     */
    public function __construct(public int $count, public array $move, public float $turn = 0.0, public ?array $around = null) {}

    /**
     * Copies in a full circle, evenly, what is copied among them.
     *
     * @param array{float, float} $around metres
     * @param float               $rise   of each step, metres
     */
    public static function circle(int $count, array $around, float $rise = 0.0): self
    {
        return new self($count, [0.0, 0.0, $rise], 360 / ($count + 1), $around);
    }

    /**
     * What a copy's transform is multiplied with, from the left.
     *
     * @param int                 $index  from 1
     * @param array{float, float} $middle x and y of the middle of what is copied, metres
     *
     * @return Transform
     */
    public function step(int $index, array $middle): array
    {
        [$x, $y] = $this->around ?? $middle;
        // Quarters come out without a trace of the sine of pi.
        $angle = fmod($this->turn * $index, 360.0);
        [$cos, $sin] = match (fmod($angle + 360, 360)) {
            0.0 => [1.0, 0.0],
            90.0 => [0.0, 1.0],
            180.0 => [-1.0, 0.0],
            270.0 => [0.0, -1.0],
            default => [cos(deg2rad($angle)), sin(deg2rad($angle))],
        };
        [$dx, $dy, $dz] = array_map(static fn (float $move): float => $move * $index, $this->move);

        return [$cos, -$sin, 0.0, $x - $cos * $x + $sin * $y + $dx, $sin, $cos, 0.0, $y - $sin * $x - $cos * $y + $dy, 0.0, 0.0, 1.0, $dz];
    }
}
