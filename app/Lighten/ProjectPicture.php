<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Bench\Bench;
use App\Files\Png;
use VineShelf\Lighten\Raster;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Levels;

/** A small picture of the whole model, for a project that nobody has opened yet. */
final class ProjectPicture
{
    /** Pixels of the picture, as the canvas makes it of a view. */
    public const WIDE = 248;

    public const HIGH = 148;

    /** Pixels that are drawn for each one, along and across. */
    private const FINE = 3;

    private const TRIANGLES = 400_000;

    /** Degrees from its middle to the eye: around from the east, and up. */
    private const AROUND = -125.0;

    private const UP = 29.0;

    /** Degrees from the top to the bottom. */
    private const SIGHT = 32.0;

    /** @return string a PNG; empty where there is nothing to be drawn */
    public static function of(Bench $bench): string
    {
        $facts = $bench->facts();
        $count = $bench->scene()->count();
        $box = $count === 0 ? null : $facts->boxAround($facts->ranked('kind')->in([Kind::Part->value]));
        if ($box === null) {
            return '';
        }
        $origin = $facts->origin();
        $middle = $half = [];
        for ($axis = 0; $axis < 3; $axis++) {
            $middle[] = ($box[$axis] + $box[$axis + 3]) / 2 - $origin[$axis];
            $half[] = ($box[$axis + 3] - $box[$axis]) / 2;
        }
        [$x, $y, $z] = $middle;
        [$around, $up, $away] = [deg2rad(self::AROUND), deg2rad(self::UP), self::away($half)];
        $camera = [
            'eye' => [$x + $away * cos($up) * cos($around), $y + $away * cos($up) * sin($around), $z + $away * sin($up)],
            'target' => $middle,
            'fov' => self::SIGHT,
            'width' => self::WIDE,
            'height' => self::HIGH,
        ];
        $shapes = new KeptVersions($bench);
        $drawing = Looking::from($facts, $camera, self::WIDE * self::FINE, $shapes, triangles: self::TRIANGLES);
        $raster = $drawing->of(Levels::constant($count, Rung::Full->value, Rung::Full->value))->raster;

        return $raster instanceof Raster ? Png::of(self::smoothed($raster), self::WIDE) : '';
    }

    /**
     * How far away the eye has to be so that all of a box is in the picture, metres.
     *
     * @param array<int, float> $half of its sides, metres
     */
    private static function away(array $half): float
    {
        [$around, $up] = [deg2rad(self::AROUND), deg2rad(self::UP)];
        $tall = tan(deg2rad(self::SIGHT / 2));
        $away = 1e-3;
        for ($corner = 0; $corner < 8; $corner++) {
            $to = static fn (int $axis): float => (($corner >> $axis) & 1) === 1 ? $half[$axis] : -$half[$axis];
            [$x, $y, $z] = [$to(0), $to(1), $to(2)];
            $out = $x * cos($around) + $y * sin($around);
            $aside = abs($y * cos($around) - $x * sin($around));
            $above = abs($z * cos($up) - $out * sin($up));
            $near = $out * cos($up) + $z * sin($up);
            $away = max($away, $near + $above / $tall, $near + ($aside / $tall) * (self::HIGH / self::WIDE));
        }

        return 1.06 * $away;
    }

    /** @return list<int> 0xRRGGBB, the mean of the pixels that were drawn for each */
    private static function smoothed(Raster $raster): array
    {
        $many = self::FINE * self::FINE;
        $pixels = [];
        for ($y = 0; $y < self::HIGH; $y++) {
            for ($x = 0; $x < self::WIDE; $x++) {
                $red = $green = $blue = 0;
                for ($at = 0; $at < $many; $at++) {
                    $row = min($raster->height - 1, $y * self::FINE + intdiv($at, self::FINE));
                    $colour = $raster->colours[$row * $raster->width + $x * self::FINE + ($at % self::FINE)];
                    $red += $colour >> 16;
                    $green += ($colour >> 8) & 255;
                    $blue += $colour & 255;
                }
                $pixels[] = (intdiv($red, $many) << 16) | (intdiv($green, $many) << 8) | intdiv($blue, $many);
            }
        }

        return $pixels;
    }
}
