<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Geometry\Affine;

/**
 * The canvas's camera, as far as places in the picture go: metres with z up, pixels from the upper left corner.
 *
 * @phpstan-import-type Transform from Affine
 */
final readonly class Camera
{
    /**
     * Three rows of four: a point (x, y, z, 1) becomes (X, Y, W), and stands at (X / W, Y / W) in the picture if W is at least $near.
     *
     * @var Transform
     */
    public array $rows;

    /**
     * @param Transform                         $rows
     * @param array{float, float, float, float} $ahead metres ahead of the eye, of a point (x, y, z, 1)
     * @param float                             $scale pixels that a metre is high, a metre ahead; of a parallel camera anywhere
     */
    private function __construct(array $rows, public float $near, public array $ahead, public float $scale, public bool $isParallel)
    {
        $this->rows = $rows;
    }

    /**
     * @param array{float, float, float} $eye
     * @param array{float, float, float} $target
     * @param array{float, float, float} $up
     * @param float                      $fov    vertical field of view, degrees, between 0 and 180
     * @param float                      $near   metres in front of the eye where the picture begins, above 0
     */
    public static function perspective(array $eye, array $target, array $up, float $fov, float $width, float $height, float $near): self
    {
        [$right, $above, $ahead] = self::axes($eye, $target, $up);
        $scale = $height / (2 * tan(deg2rad($fov) / 2));

        return new self(
            [
                ...self::row($right, $scale, $ahead, $width / 2, $eye),
                ...self::row($above, -$scale, $ahead, $height / 2, $eye),
                ...self::row($ahead, 1.0, $ahead, 0.0, $eye),
            ],
            $near,
            self::row($ahead, 1.0, $ahead, 0.0, $eye),
            $scale,
            false,
        );
    }

    /**
     * @param array{float, float, float} $eye
     * @param array{float, float, float} $target
     * @param array{float, float, float} $up
     * @param float                      $tall   metres that the picture is high
     */
    public static function parallel(array $eye, array $target, array $up, float $tall, float $width, float $height): self
    {
        [$right, $above, $ahead] = self::axes($eye, $target, $up);
        $scale = $height / $tall;
        [$a, $b, $c, $d] = self::row($right, $scale, $right, 0.0, $eye);
        [$e, $f, $g, $h] = self::row($above, -$scale, $above, 0.0, $eye);

        $rows = [$a, $b, $c, $d + $width / 2, $e, $f, $g, $h + $height / 2, 0.0, 0.0, 0.0, 1.0];

        return new self($rows, 0.5, self::row($ahead, 1.0, $ahead, 0.0, $eye), $scale, true);
    }

    /**
     * How far places are along one axis, and along another, seen from the eye.
     *
     * @param array{float, float, float} $one
     * @param array{float, float, float} $other
     * @param array{float, float, float} $eye
     *
     * @return array{float, float, float, float}
     */
    private static function row(array $one, float $times, array $other, float $otherTimes, array $eye): array
    {
        $x = $one[0] * $times + $other[0] * $otherTimes;
        $y = $one[1] * $times + $other[1] * $otherTimes;
        $z = $one[2] * $times + $other[2] * $otherTimes;

        return [$x, $y, $z, -($x * $eye[0] + $y * $eye[1] + $z * $eye[2])];
    }

    /**
     * @param array{float, float, float} $eye
     * @param array{float, float, float} $target
     * @param array{float, float, float} $up
     *
     * @return array{array{float, float, float}, array{float, float, float}, array{float, float, float}} unit vectors to the right, upwards
     *     and ahead
     */
    private static function axes(array $eye, array $target, array $up): array
    {
        $ahead = self::unit([$target[0] - $eye[0], $target[1] - $eye[1], $target[2] - $eye[2]], [0.0, 1.0, 0.0]);
        $right = self::unit(self::cross($ahead, $up), self::unit(self::cross($ahead, [0.0, 1.0, 0.0]), [1.0, 0.0, 0.0]));

        return [$right, self::cross($right, $ahead), $ahead];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }

    /**
     * @param array{float, float, float} $v
     * @param array{float, float, float} $otherwise for a vector without a direction
     *
     * @return array{float, float, float}
     */
    private static function unit(array $v, array $otherwise): array
    {
        $length = sqrt($v[0] ** 2 + $v[1] ** 2 + $v[2] ** 2);

        return $length < 1e-9 ? $otherwise : [$v[0] / $length, $v[1] / $length, $v[2] / $length];
    }
}
