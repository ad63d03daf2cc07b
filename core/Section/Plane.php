<?php

declare(strict_types=1);

namespace VineShelf\Section;

/** A plane that cuts: what is on the side that its normal points to is gone. */
final readonly class Plane
{
    /**
     * @param array{float, float, float} $normal   unit
     * @param float                      $distance metres from zero along the normal: kept is what is at most so far
     */
    private function __construct(public array $normal, public float $distance) {}

    /**
     * @param array{float, float, float} $normal any length but zero
     *
     * @throws \InvalidArgumentException when the normal points nowhere
     */
    public static function of(array $normal, float $distance): self
    {
        [$x, $y, $z] = $normal;
        $length = sqrt($x * $x + $y * $y + $z * $z);
        if (! is_finite($length) || $length < 1e-9 || ! is_finite($distance)) {
            throw new \InvalidArgumentException('The normal of a plane points somewhere.');
        }

        return new self([$x / $length, $y / $length, $z / $length], $distance);
    }

    /** The same plane, with the other side kept. */
    public function flipped(): self
    {
        return new self([-$this->normal[0], -$this->normal[1], -$this->normal[2]], -$this->distance);
    }

    /** Metres beyond the plane; at most 0 where it is kept. */
    public function beyond(float $x, float $y, float $z): float
    {
        return $this->normal[0] * $x + $this->normal[1] * $y + $this->normal[2] * $z - $this->distance;
    }

    /**
     * Two unit directions in the plane that make a right-handed system with its normal.
     *
     * @return array{array{float, float, float}, array{float, float, float}}
     */
    public function axes(): array
    {
        [$x, $y, $z] = $this->normal;
        // Along the axis that is farthest from the normal.
        [$ax, $ay, $az] =
            abs($x) <= abs($y) && abs($x) <= abs($z) ? [1.0, 0.0, 0.0] : (abs($y) <= abs($z) ? [0.0, 1.0, 0.0] : [0.0, 0.0, 1.0]);
        $u = [$ay * $z - $az * $y, $az * $x - $ax * $z, $ax * $y - $ay * $x];
        $length = sqrt($u[0] ** 2 + $u[1] ** 2 + $u[2] ** 2);
        $u = [$u[0] / $length, $u[1] / $length, $u[2] / $length];

        return [$u, [$y * $u[2] - $z * $u[1], $z * $u[0] - $x * $u[2], $x * $u[1] - $y * $u[0]]];
    }
}
